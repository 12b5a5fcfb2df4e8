/** The eight corners of an upright box whose second side runs along a bearing, clockwise from +Y. */
export function cornersOf(
  [x = 0, y = 0, z = 0]: readonly number[],
  [long = 0, wide = 0, high = 0]: readonly number[],
  bearingDeg: number,
): number[][] {
  const turn = (bearingDeg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return [-1, 1].flatMap((a) =>
    [-1, 1].flatMap((b) =>
      [-1, 1].map((c) => {
        const [u, v] = [(a * long) / 2, (b * wide) / 2];
        return [x + u * cos + v * sin, y - u * sin + v * cos, z + (c * high) / 2];
      }),
    ),
  );
}
