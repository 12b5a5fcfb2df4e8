import fc from "fast-check";
import { expect, test } from "vitest";
import { bubblesApart } from "./bubbles";

test("bubbles with room stay at the ends of their lines; one too near moves on along its line", () => {
  const line = (tag: string, x: number) => ({ tag, end: { x, y: 50 }, way: { x: 0, y: 3 } });
  const at = bubblesApart([line("A", 0), line("B", 40), line("B.1", 46)], 9).map((each) => each.at);
  expect(at).toEqual([
    { x: 0, y: 50 },
    { x: 40, y: 50 },
    { x: 46, y: 68 },
  ]);
});

test("no bubble lies over another one, however near their lines are", () => {
  const x = fc.integer({ min: 0, max: 60 });
  fc.assert(
    fc.property(fc.array(x, { maxLength: 12 }), (xs) => {
      const placed = bubblesApart(
        xs.map((x, k) => ({ tag: `${k}`, end: { x, y: 0 }, way: { x: 0, y: -1 } })),
        9,
      );
      for (const [k, a] of placed.entries())
        for (const b of placed.slice(k + 1))
          expect(Math.hypot(a.at.x - b.at.x, a.at.y - b.at.y)).toBeGreaterThanOrEqual(18);
    }),
  );
});
