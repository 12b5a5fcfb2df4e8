import fc from "fast-check";
import { expect, test } from "vitest";
import { hull } from "./hull";

test("the outline of a turned box is its four corners, and not the box of the axes around it", () => {
  const corners = [
    { x: 0, y: 10 },
    { x: 10, y: 0 },
    { x: 20, y: 10 },
    { x: 10, y: 20 },
  ];
  const found = hull([...corners, { x: 10, y: 10 }, { x: 5, y: 5 }]);
  expect(new Set(found.map(({ x, y }) => `${x},${y}`))).toEqual(
    new Set(corners.map(({ x, y }) => `${x},${y}`)),
  );
  expect(hull(corners, 3).map(({ y }) => y)).toContain(23);
});

const place = fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) });

test("no point lies outside of an outline", () => {
  fc.assert(
    fc.property(fc.array(place, { minLength: 1, maxLength: 40 }), (points) => {
      const around = hull(points);
      for (const [k, a] of around.entries()) {
        const b = around[(k + 1) % around.length];
        if (!b || around.length < 3) continue;
        for (const p of points)
          expect((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)).toBeGreaterThanOrEqual(0);
      }
    }),
  );
});
