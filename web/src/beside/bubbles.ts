import type { Point } from "../open/plan/plan";

/** The end of a grid line in pixels, and the way on from there, in which its bubble may move. */
export interface Bubble {
  tag: string;
  end: Point;
  way: Point;
}

/** Where each bubble of a radius goes so that none lies over one before it: on along its own line. */
export function bubblesApart(bubbles: readonly Bubble[], radius: number): (Bubble & { at: Point })[] {
  const placed: (Bubble & { at: Point })[] = [];
  for (const bubble of bubbles) {
    const { end, way } = bubble;
    const length = Math.hypot(way.x, way.y) || 1;
    let at = end;
    // A step is a radius, so that each bubble before it takes three steps at most.
    for (let k = 1; k <= 3 * placed.length; k++) {
      if (placed.every((other) => Math.hypot(other.at.x - at.x, other.at.y - at.y) >= 2 * radius)) break;
      const on = (k * radius) / length;
      at = { x: end.x + way.x * on, y: end.y + way.y * on };
    }
    placed.push({ ...bubble, at });
  }
  return placed;
}
