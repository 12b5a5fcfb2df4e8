import { expect, test } from "vitest";
import { fromSegment } from "./onScreen";

test("a pixel is as far from a line as from its nearest point", () => {
  const [a, b] = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
  ];
  expect(fromSegment({ x: 5, y: 3 }, a, b)).toBe(3);
  expect(fromSegment({ x: -3, y: 4 }, a, b)).toBe(5);
  expect(fromSegment({ x: 13, y: 4 }, a, b)).toBe(5);
  expect(fromSegment({ x: 3, y: 4 }, a, a)).toBe(5);
});
