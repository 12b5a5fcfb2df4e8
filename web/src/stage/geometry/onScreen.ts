interface Pixel {
  x: number;
  y: number;
}

/** How far a pixel is from the line between two others. */
export function fromSegment(at: Pixel, a: Pixel, b: Pixel): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const length = dx * dx + dy * dy;
  const share = length ? ((at.x - a.x) * dx + (at.y - a.y) * dy) / length : 0;
  const t = Math.min(1, Math.max(0, share));
  return Math.hypot(a.x + dx * t - at.x, a.y + dy * t - at.y);
}

/** Places that are nearer to the first of a group than so many pixels, as groups. */
export function joined<T extends Pixel>(places: readonly T[], withinPx: number): T[][] {
  const groups: T[][] = [];
  for (const place of places) {
    const near = groups.find(
      ([first]) => first && Math.hypot(first.x - place.x, first.y - place.y) < withinPx,
    );
    if (near) near.push(place);
    else groups.push([place]);
  }
  return groups;
}
