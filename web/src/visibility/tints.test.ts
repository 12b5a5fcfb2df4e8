import { expect, test } from "vitest";
import { STEPS, TINTS, tintedBy, tintedByScale } from "../open/visibility/tints";
import type { Rule } from "../open/visibility/viewState";
import { called } from "./called";

const of = (value: string) => ({ kind: "of", what: "system", value }) as const;
const hide: Rule = { select: of("Air"), effect: "hide", by: "Ida", at: "", why: "", off: false };

test("each group has a colour, in place of tints that there were, and what is hidden stays so", () => {
  const groups = [
    { name: "A", select: of("A"), count: 1 },
    { name: "B", select: of("B"), count: 5 },
  ];
  const once = tintedBy([hide], groups, { kind: "all" }, "Ida", "now");
  expect(once.map(({ effect, colour }) => [effect, colour])).toEqual([
    ["hide", undefined],
    ["tint", TINTS[0]],
    ["tint", TINTS[1]],
  ]);
  expect(tintedBy(once, groups.slice(1), { kind: "all" }, "Tam", "later")).toHaveLength(2);
});

test("of very many groups the largest have colours and the rest one of its own, beneath them", () => {
  const groups = Array.from({ length: 20 }, (_, k) => ({ name: `S${k}`, select: of(`S${k}`), count: k }));
  const rules = tintedBy([], groups, { kind: "all" }, "Ida", "now");
  expect(rules).toHaveLength(TINTS.length + 1);
  expect(rules[0]?.select).toEqual({ kind: "all" });
  expect(rules.slice(1).map(({ select }) => select)).toEqual(groups.slice(11).map(({ select }) => select));
  expect(new Set(rules.map(({ colour }) => colour)).size).toBe(rules.length);
});

/** A colour as people see it who lack one kind of cone (Viénot, Brettel and Mollon, 1999), in linear light. */
function seenBy(hex: string, lacks: "red" | "green"): number[] {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map(
    (at) => (Number.parseInt(hex.slice(at, at + 2), 16) / 255) ** 2.2,
  );
  const red = lacks === "red" ? 0.11238 * r + 0.88762 * g : 0.29275 * r + 0.70725 * g;
  const blue = lacks === "red" ? 0.00401 * r - 0.00401 * g + b : -0.02234 * r + 0.02234 * g + b;
  return [red, red, blue].map((v) => Math.max(0, v) ** (1 / 2.2));
}

test.each(["red", "green"] as const)("the tints are told apart by who lacks the cone for %s", (lacks) => {
  const colours = TINTS.map((hex) => seenBy(hex, lacks));
  for (const [i, one] of colours.entries())
    for (const other of colours.slice(i + 1))
      expect(Math.hypot(...one.map((v, k) => v - (other[k] ?? 0)))).toBeGreaterThan(0.06);
});

test("a legend says what is tinted", () => {
  expect(called("Tinted: system Sea-water supply")).toBe("Sea-water supply");
  expect(called("Tinted: everything")).toBe("the rest");
  expect(called("Tinted: no system")).toBe("no system");
});

test("figures are tinted from dark to light, and a limit belongs to the step above it", () => {
  const step = (low: number, high: number) => ({ low, high, count: 1 });
  const scale = {
    what: "quantity:Base.Length",
    unit: "m",
    steps: [step(1, 2), step(2, 4), step(4, 9)],
    without: 3,
  };
  const rules = tintedByScale([], scale, (figure) => `${figure} m`, "Ada", "now");
  expect(rules.map(({ why, colour }) => [why, colour])).toEqual([
    ["no value", "#c9c2b4"],
    ["1 m to 2 m", STEPS[0]],
    ["2 m to 4 m", STEPS[3]],
    ["4 m to 9 m", STEPS[5]],
  ]);
  expect(rules[2]?.select).toEqual({
    kind: "where",
    of: [{ what: "quantity:Base.Length", how: "between", value: [2, 4], unit: "m" }],
    called: "",
  });
});
