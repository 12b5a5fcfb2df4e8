import { Vector3 } from "three";
import { expect, test } from "vitest";
import { openBearing } from "./sight";

/** A room from x -2 to 8 and y -3 to 3. */
function clear(from: Vector3, to: Vector3): number {
  const way = to.clone().sub(from);
  const shares = [
    way.x > 0 ? (8 - from.x) / way.x : way.x < 0 ? (-2 - from.x) / way.x : 1,
    way.y > 0 ? (3 - from.y) / way.y : way.y < 0 ? (-3 - from.y) / way.y : 1,
  ];
  return Math.min(1, ...shares) * way.length();
}

test("one looks where one wants to", () => {
  expect(openBearing(clear, new Vector3(0, 0, 1.6), 0)).toBe(0);
});

test("where one would face a wall one looks along the longest clear line", () => {
  const found = openBearing(clear, new Vector3(-1.5, 0, 1.6), 270);
  // To one of the far corners.
  expect(Math.abs(found - 90)).toBeLessThan(25);
});
