import { expect, test } from "vitest";
import { cornersOf } from "./corners";

test("the corners of a box lie along its bearing", () => {
  const corners = cornersOf([10, 20, 3], [4, 2, 1], 90);
  expect(corners).toHaveLength(8);
  // Its second side runs east, so its first runs south.
  expect(Math.max(...corners.map(([x = 0]) => x))).toBeCloseTo(11, 9);
  expect(Math.max(...corners.map(([, y = 0]) => y))).toBeCloseTo(22, 9);
  expect(Math.max(...corners.map(([, , z = 0]) => z))).toBeCloseTo(3.5, 9);
});
