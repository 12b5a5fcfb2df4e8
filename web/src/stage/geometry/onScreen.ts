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
