import { expect, test } from "vitest";
import { spokenDeed } from "./recordWords";
import { asked } from "./useRecord";

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
  ["made a link to set a password", "person", "Una Vale", "made a link to set a password: Una Vale"],
])("%s of %s is told in words", (action, kind, title, said) => {
  expect(spokenDeed({ ...entry, action, kind, title })).toBe(said);
});

test("a day counts from its beginning to its end, and what is not filtered is not asked", () => {
  const found = asked({ who: "", kind: "topic", thing: "", from: "2026-12-01", to: "2026-12-01" });
  expect(Object.keys(found)).toEqual(["kind", "since", "until"]);
  expect(new Date(found.until ?? "").getTime() - new Date(found.since ?? "").getTime()).toBe(86_400_000);
});
