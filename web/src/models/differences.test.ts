import { expect, test } from "vitest";
import { type Changes, summed, tintedChanges } from "./differences";

const one = (global_id: string) => ({
  ref: { model: "m", global_id },
  label: global_id,
  ifc_class: "IfcWall",
});
const CHANGES: Changes = {
  matched_by: "global_id",
  same: 7,
  added: [one("a")],
  removed: [one("r")],
  moved: [{ ...one("b"), by_m: [0.035, 0, 0], turned_deg: 0 }],
  reshaped: [],
  changed: [{ ...one("b"), fields: [{ name: "name", old: "A", new: "B" }] }],
};

test("what differs is summed up in a sentence", () => {
  expect(summed(CHANGES)).toBe("1 added, 1 removed, 1 moved, 1 with other properties; 7 unchanged.");
  const nothing = { ...CHANGES, added: [], removed: [], moved: [], changed: [] };
  expect(summed(nothing)).toBe("No differences: 7 unchanged.");
});

test("what differs is tinted over what is the same, and what was moved over what is described otherwise", () => {
  const hide = {
    select: { kind: "all" as const },
    effect: "hide" as const,
    colour: null,
    by: "",
    at: "",
    why: "",
    off: false,
  };
  const old = { ...hide, effect: "tint" as const, colour: "#123456" };
  const rules = tintedChanges([hide, old], "QH-ARC", CHANGES, "Ada", "now");
  expect(rules.map(({ effect, why }) => [effect, why])).toEqual([
    ["hide", ""],
    ["tint", "unchanged"],
    ["tint", "Properties changed"],
    ["tint", "moved"],
    ["tint", "added"],
  ]);
  expect(rules[3]?.select).toEqual({ kind: "these", of: { m: ["b"] } });
});
