import { expect, test } from "vitest";
import { fromSegment, joined } from "./onScreen";

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

test("what crowds is one group, what stands apart is one each", () => {
  const at = (x: number) => ({ x, y: 0 });
  expect(joined([at(0), at(10), at(100), at(12)], 20).map((g) => g.length)).toEqual([3, 1]);
  expect(joined([], 20)).toEqual([]);
});
