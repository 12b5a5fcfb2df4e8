import { expect, it } from "vitest";
import { listed, spokenChange, type Topic } from "./listed";

const topic = (reference: string, said: Partial<Topic["said"]>, more: Partial<Topic> = {}): Topic => ({
  id: reference,
  guid: "",
  reference,
  number: 1,
  variant: "",
  disciplines: [],
  said: {
    title: "Duct in the beam",
    description: "",
    kind: "",
    status: "open",
    priority: "",
    assigned_to: "",
    labels: [],
    stage: "",
    ...said,
  },
  views: [],
  author: "",
  created_at: "",
  changed_by: "",
  changed_at: "",
  overdue: false,
  new: false,
  ...more,
});
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
    "who has it: nothing → Tam Kerr",
  );
  expect(spokenChange({ field: "labels", old: ["fire"], new: ["fire", "site"] })).toBe(
    "labels: fire → fire, site",
  );
});
