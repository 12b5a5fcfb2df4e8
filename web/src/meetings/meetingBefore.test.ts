import { expect, test } from "vitest";
import type { Shapes } from "../api/client";
import { changeName, changesBack } from "./meetingBefore";

const before: Shapes["Meeting"] = {
  id: "m",
  title: "Monday",
  held_on: "2026-11-30",
  author: "Ida Fenn",
  started_at: "2026-11-30T09:00:00Z",
  ended_at: null,
  present: ["Ida Fenn", "Tam Kerr"],
  absent: ["Mara Oake"],
  from_time: "09:00:00",
  to_time: null,
  next_on: null,
  next_time: null,
  topics: ["a", "b", "c"],
  whys: ["new", "new", "chosen"],
  folder: null,
};

test("a change to a meeting is called by what it changes", () => {
  expect(changeName(before, { title: "Tuesday" })).toBe("changed the title of Monday");
  expect(changeName(before, { topics: { add: ["d"], drop: [] } })).toBe("changed the agenda of Monday");
  expect(changeName(before, { ended: true })).toBe("ended Monday");
});

test("fields become what they were", () => {
  expect(changesBack(before, { title: "Tuesday", ended: true })).toEqual([{ title: "Monday", ended: false }]);
  expect(changesBack(before, { hours: { from_time: "10:00:00", to_time: "11:00:00" } })).toEqual([
    { hours: { from_time: "09:00:00", to_time: null } },
  ]);
  expect(changesBack(before, { next: { on: "2026-12-07", at: null } })).toEqual([
    { next: { on: null, at: null } },
  ]);
});

test("what was taken off the agenda comes back to its place, and what was added goes", () => {
  expect(changesBack(before, { topics: { add: ["d"], drop: ["b"] } })).toEqual([
    { topics: { add: ["b"], drop: ["d"] } },
    { place: { topic: "b", before: "c" } },
  ]);
  expect(changesBack(before, { place: { topic: "a", before: null } })).toEqual([
    { place: { topic: "a", before: "b" } },
  ]);
});

test("who was absent and came is absent again", () => {
  expect(changesBack(before, { present: { add: ["Mara Oake", "Ned Pell"], drop: ["Tam Kerr"] } })).toEqual([
    {
      present: { add: ["Tam Kerr"], drop: ["Mara Oake", "Ned Pell"] },
      absent: { add: ["Mara Oake"], drop: [] },
    },
  ]);
});
