import type { Point } from "../open/plan/plan";

/** The convex outline of points, counter-clockwise where y runs up (A. M. Andrew, 1979); `out` is how far it stands off. */
export function hull(points: readonly Point[], out = 0): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const side = (along: readonly Point[]) => {
    const found: Point[] = [];
    for (const point of along) {
      for (;;) {
        const [a, b] = [found.at(-2), found.at(-1)];
        if (!a || !b || (b.x - a.x) * (point.y - a.y) - (b.y - a.y) * (point.x - a.x) > 0) break;
        found.pop();
      }
      found.push(point);
    }
    return found.slice(0, -1);
  };
  const around = [...side(sorted), ...side(sorted.toReversed())];
  const middle = {
    x: around.reduce((sum, { x }) => sum + x, 0) / around.length,
    y: around.reduce((sum, { y }) => sum + y, 0) / around.length,
  };
  return around.map(({ x, y }) => {
    const away = Math.hypot(x - middle.x, y - middle.y) || 1;
    return { x: x + ((x - middle.x) / away) * out, y: y + ((y - middle.y) / away) * out };
  });
}
