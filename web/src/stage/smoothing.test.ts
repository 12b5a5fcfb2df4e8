import { expect, it } from "vitest";
import { SHIFTS } from "./smoothing";

it("shifts a view about where it is, by less than half a pixel, each time to another row and column", () => {
  const [first, ...turned] = SHIFTS;
  expect(first).toEqual([0, 0]);
  for (const axis of [0, 1]) {
    const along = turned.map((shift) => shift[axis] ?? 0);
    expect(along.reduce<number>((sum, by) => sum + by, 0)).toBe(0);
    expect(new Set(along).size).toBe(turned.length);
    expect(Math.max(...along.map(Math.abs))).toBeLessThan(0.5);
  }
});
