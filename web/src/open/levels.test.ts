import { expect, test } from "vitest";
import { levelAt, offStorey, overStorey } from "./levels";

const LEVELS = [
  { name: "Level 00", elevation_m: 0, begins_m: -0.25 },
  { name: "Level 01", elevation_m: 4, begins_m: 3.75 },
];

test("a height belongs to the highest level that begins at it or below", () => {
  expect([-3, 0, 3.7, 3.8, 4, 90].map((z) => levelAt(LEVELS, z))).toEqual([0, 0, 0, 1, 1, 1]);
  expect(levelAt([], 1)).toBe(0);
});

test("heights are told over the storey's floor", () => {
  expect(overStorey(LEVELS, 5.6)).toEqual({ name: "Level 01", overM: 5.6 - 4, floorM: 4 });
  expect(overStorey(LEVELS, -1).overM).toBe(-1);
  expect(overStorey([], 2)).toEqual({ name: "zero", overM: 2, floorM: 0 });
});

test("the eye is above or below the storey that is shown by the same levels", () => {
  expect(offStorey(LEVELS, 0, 1.6)).toBe("no");
  expect(offStorey(LEVELS, 0, -0.2)).toBe("no");
  expect(offStorey(LEVELS, 0, -2)).toBe("below");
  expect(offStorey(LEVELS, 0, 4.2)).toBe("above");
  expect(offStorey(LEVELS, 1, 1.6)).toBe("below");
  expect(offStorey(LEVELS, 1, 7)).toBe("no");
  expect(offStorey(LEVELS, 1, 30)).toBe("above");
});
