import { expect, it } from "vitest";
import { listed, rowsOf, spokenChange } from "./listed";
import { testTopic as topic } from "./testTopic";

const ALL = [
  topic("AIR-STR 014 b", { assigned_to: "Mara Oake" }, { overdue: true }),
  topic("WTR 015", { title: "Pipe over the stair", status: "settled", assigned_to: "Mara Oake" }),
  topic("ARC 016", { title: "Door swing", labels: ["fire"] }, { new: true }),
];
const ENDS = new Set(["settled", "dropped"]);
const found = (which: Parameters<typeof listed>[1], typed = "") =>
  listed(ALL, which, typed, "mara oake", ENDS).map(({ reference }) => reference);

it("lists what is meant", () => {
  expect(found("all")).toHaveLength(3);
  expect(found("open")).toEqual(["AIR-STR 014 b", "ARC 016"]);
  expect(found("mine")).toEqual(["AIR-STR 014 b"]);
  expect(found("new")).toEqual(["ARC 016"]);
  expect(found("late")).toEqual(["AIR-STR 014 b"]);
});

it("finds by reference as it is typed, by title, label and name", () => {
  for (const typed of ["air str 014", "014 b", "AIR-STR", "duct beam oake"])
    expect(found("all", typed)).toEqual(["AIR-STR 014 b"]);
  expect(found("all", "fire")).toEqual(["ARC 016"]);
  expect(found("open", "stair")).toEqual([]);
});

it("says a change", () => {
  expect(spokenChange({ field: "assigned_to", old: "", new: "Tam Kerr" })).toBe(
    "assigned to: nothing → Tam Kerr",
  );
  expect(spokenChange({ field: "import", old: "", new: "Imported from QH.bcf." })).toBe(
    "Imported from QH.bcf.",
  );
  expect(spokenChange({ field: "labels", old: ["fire"], new: ["fire", "site"] })).toBe(
    "labels: fire → fire, site",
  );
});

const names = (rows: ReturnType<typeof rowsOf>) =>
  rows.map((row) => (row.kind === "group" ? `${row.name} ${row.count}` : row.topic.reference));

it("is sorted by any of what is said, with what says nothing last", () => {
  const all = [
    topic("AIR 003", { due: "2026-02-01" }),
    topic("AIR 001", {}),
    topic("AIR 002", { due: "2026-01-01" }),
  ];
  expect(names(rowsOf(all, "due", "none"))).toEqual(["AIR 002", "AIR 003", "AIR 001"]);
  expect(names(rowsOf(all, "number", "none"))).toEqual(["AIR 003", "AIR 001", "AIR 002"]);
  // The other way round what says nothing is last as well.
  expect(names(rowsOf(all, "due", "none", [], true))).toEqual(["AIR 003", "AIR 002", "AIR 001"]);
  expect(names(rowsOf(all, "number", "none", [], true))).toEqual(["AIR 002", "AIR 001", "AIR 003"]);
});

it("is grouped by assignee, by label in each of its labels, by discipline", () => {
  const all = [
    topic("AIR 001", { assigned_to: "Tam Kerr", labels: ["fire", "door"] }),
    topic("STR 002", { labels: ["fire"] }, { disciplines: ["STR", "AIR"] }),
  ];
  expect(names(rowsOf(all, "number", "assigned_to"))).toEqual([
    "Tam Kerr 1",
    "AIR 001",
    "nobody 1",
    "STR 002",
  ]);
  expect(names(rowsOf(all, "number", "labels"))).toEqual([
    "door 1",
    "AIR 001",
    "fire 2",
    "AIR 001",
    "STR 002",
  ]);
  expect(names(rowsOf(all, "number", "discipline"))).toEqual([
    "AIR 1",
    "STR 002",
    "STR 1",
    "STR 002",
    "none 1",
    "AIR 001",
  ]);
});

it("finds by where a topic is and how pressing it is, and sorts by the project's own priorities", () => {
  const topics = [
    topic("A", { priority: "later" }, { level: "Level 01", room: "1.01 Plankton laboratory" }),
    topic("B", { priority: "now" }, { level: "Level 02", disciplines: ["WTR"] }),
    topic("C", {}, { level: "Level 01" }),
  ];
  const found = (typed: string) =>
    listed(topics, "all", typed, "", new Set()).map(({ reference }) => reference);
  expect(found("level 01")).toEqual(["A", "C"]);
  expect(found("plankton")).toEqual(["A"]);
  expect(found("wtr now")).toEqual(["B"]);
  const names = (rows: ReturnType<typeof rowsOf>) => rows.map((row) => row.key);
  expect(names(rowsOf(topics, "priority", "none", ["now", "later"]))).toEqual(["B", "A", "C"]);
  expect(names(rowsOf(topics, "priority", "none", ["now", "later"], true))).toEqual(["A", "B", "C"]);
  expect(names(rowsOf(topics, "room", "none"))).toEqual(["A", "B", "C"]);
});
