import { expect, test } from "vitest";
import { matches } from "./matches";

const all = [
  { name: "B1.04 Dive store", kind: "room" },
  { name: "Specimen store", kind: "room" },
  { name: "1.04 Wet laboratory", kind: "room" },
  { name: "Fit the room the eye is in", kind: "action" },
  { name: "Restore", kind: "action" },
];
const names = (typed: string, most = 10) => matches(all, typed, most).map((m) => m.name);

test("what begins with the typed comes first, then words, then parts of words", () => {
  expect(names("1.04")).toEqual(["1.04 Wet laboratory", "B1.04 Dive store"]);
  expect(names("store")).toEqual(["B1.04 Dive store", "Specimen store", "Restore"]);
});

test("words match in any order, and the kind too", () => {
  expect(names("store spec")).toEqual(["Specimen store"]);
  expect(names("room fit")).toEqual(["Fit the room the eye is in"]);
  expect(names("dive room")).toEqual(["B1.04 Dive store"]);
});

test("at most so many, kind by kind, and none if nothing answers", () => {
  expect(names("o", 2)).toHaveLength(2);
  expect(matches(all, "r", 10).map((m) => m.kind)).toEqual(["action", "action", "room", "room", "room"]);
  expect(names("turbine")).toEqual([]);
});
