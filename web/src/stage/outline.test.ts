import { Vector3 } from "three";
import { expect, test } from "vitest";
import { outlineBefore } from "./outline";
import type { Pose } from "./pose";

const square = [new Vector3(-1, 5, 0), new Vector3(1, 5, 0), new Vector3(1, 15, 0), new Vector3(-1, 15, 0)];
const at = (y: number, projection: Pose["projection"] = "perspective"): Pose => ({
  eye: new Vector3(0, y, 2),
  target: new Vector3(0, y + 1, 2),
  up: new Vector3(0, 0, 1),
  projection,
  angleDeg: 60,
  heightM: 10,
  throughM: 0,
});

test("an outline before the eye is whole", () => {
  expect(outlineBefore(square, at(0))).toEqual(square);
});

test("an outline that the eye stands in is cut off beside it", () => {
  const seen = outlineBefore(square, at(10));
  expect(seen).toHaveLength(4);
  for (const p of seen) expect(p.y).toBeGreaterThan(10);
  expect(Math.min(...seen.map((p) => p.y))).toBeCloseTo(10.05, 9);
});

test("nothing of an outline behind the eye is seen, but all of it in a parallel view", () => {
  expect(outlineBefore(square, at(20))).toEqual([]);
  expect(outlineBefore(square, at(20, "parallel"))).toEqual(square);
});
