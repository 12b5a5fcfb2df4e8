import { Vector3 } from "three";
import { expect, test } from "vitest";
import { spokenIn } from "../open/units";
import type { Measure } from "../open/visibility/viewState";
import { full, read } from "./figures";
import { held } from "./locks";
import { type Found, pendingLines } from "./measuring";

const from = { point: new Vector3(1, 1, 1), normal: new Vector3(0, 0.6, 0.8) };
const at = (lock: Parameters<typeof held>[2], northDeg = 0) =>
  held(from, new Vector3(4, 5, 6), lock, northDeg)
    .toArray()
    .map((c) => Number(c.toFixed(9)));

test("a point is held to an axis of the building, to the plan, or square to the first face", () => {
  expect(at("free")).toEqual([4, 5, 6]);
  expect(at("east")).toEqual([4, 1, 1]);
  expect(at("north")).toEqual([1, 5, 1]);
  expect(at("up")).toEqual([1, 1, 6]);
  expect(at("plan")).toEqual([4, 5, 1]);
  // The building turned by 90 degrees: its north is the project's east.
  expect(at("north", 90)).toEqual([4, 1, 1]);
  expect(at("square")).toEqual([1, 4.84, 6.12]);
});

test("figures are read in one's own units and copied with all their digits", () => {
  const third = { name: "distance", quantity: "length", value: 1 / 3 } as const;
  expect(read(third, spokenIn("mm"))).toBe("333.3 mm");
  expect(full(third, spokenIn("m"))).toBe(String(1 / 3));
  expect(full(third, spokenIn("mm"))).toBe(String(1000 / 3));
  expect(read({ name: "fall", quantity: "share", value: -0.0125 }, spokenIn("m"))).toBe("−1.25 %");
  expect(full({ name: "fall", quantity: "share", value: -0.0125 }, spokenIn("m"))).toBe("-1.25");
  expect(read({ name: "angle", quantity: "angle", value: 29.999 }, spokenIn("ft"))).toBe("30.00°");
  expect(read({ name: "area", quantity: "area", value: 0.3048 ** 2 }, spokenIn("ft"))).toBe("1.00 ft²");
  expect(full({ name: "volume", quantity: "volume", value: 2 }, spokenIn("m"))).toBe("2");
});

test("what was clicked is drawn from the last click until its figure is there, and not after its measure is gone", () => {
  const measure: Measure = { id: "a", name: "", what: { kind: "volume", of: [] } };
  const answer: Found = { id: "a", figures: [], dimensions: [], of: [], note: "", trouble: "" };
  const line = [
    [0, 0, 0],
    [1, 0, 0],
  ];
  const drawn = (kept: boolean, there: boolean, found: boolean) =>
    pendingLines({ a: { points_m: line, kept } }, there ? [measure] : [], () => (found ? answer : undefined));
  expect(drawn(false, false, false)).toEqual([line]);
  expect(drawn(true, true, false)).toEqual([line]);
  expect(drawn(true, true, true)).toEqual([]);
  expect(drawn(true, false, false)).toEqual([]);
  expect(pendingLines({ a: { points_m: line.slice(1), kept: false } }, [], () => undefined)).toEqual([]);
});
