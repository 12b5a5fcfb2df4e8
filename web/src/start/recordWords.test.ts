import { afterAll, beforeAll, expect, test } from "vitest";
import { writeAsIn } from "../api/locale";
import { spokenBrowser, spokenDeed, spokenValue } from "./recordWords";
import { asked } from "./useRecord";

beforeAll(() => writeAsIn("en-GB"));
afterAll(() => writeAsIn(""));

const entry = {
  number: 1,
  at: "2026-12-01T09:00:00Z",
  who: "Ida Fenn",
  thing_id: "t",
  fields: [],
  address: "",
  browser: "",
  token: "",
};

test.each([
  ["changed", "topic_note", "Seen", "changed the comment Seen"],
  ["was refused", "action", "see people and how it runs", "was refused to see people and how it runs"],
  ["made", "member", "Tom Reed", "let in Tom Reed"],
  ["signed in", "sign_in", "ida", "signed in"],
  ["was refused", "sign_in", "ida", "could not sign in"],
  ["made a link to set a password", "person", "Una Vale", "made a link to set a password: Una Vale"],
])("%s of %s is told in words", (action, kind, title, said) => {
  expect(spokenDeed({ ...entry, action, kind, title })).toBe(said);
});

test("a day counts from its beginning to its end, and what is not filtered is not asked", () => {
  const found = asked({ who: "", kind: "topic", thing: "", from: "2026-12-01", to: "2026-12-01" });
  expect(Object.keys(found)).toEqual(["kind", "since", "until"]);
  expect(new Date(found.until ?? "").getTime() - new Date(found.since ?? "").getTime()).toBe(86_400_000);
});

test.each([
  [
    "Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:150.0) Gecko/20100101 Firefox/150.0",
    "Firefox 150 on Windows",
  ],
  ["site-tablet/2", "site-tablet/2"],
  ["", ""],
])("%s is called %s", (agent, called) => {
  expect(spokenBrowser(agent)).toBe(called);
});

test.each([
  ["2026-12-04", "04/12/2026"],
  ["12 December, at 2026-12-04", "12 December, at 2026-12-04"],
  ["", "nothing"],
  [null, "nothing"],
])("what was %s is said as %s", (value, said) => {
  expect(spokenValue(value)).toBe(said);
});

test("a moment is written as others on the page", () => {
  expect(spokenValue("2026-12-01T16:02:50+00:00")).toMatch(/^\d\d\/12\/2026, \d\d:02$/);
});
