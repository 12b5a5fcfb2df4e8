import { Ground } from "./ground";
import { type Tile, WAYS } from "./tile";

/** A level tile of so many cells each way, free but for a column of cells. */
export function level(side: number, barred = -1): Tile {
  const steps = new Uint8Array(side * side * 8).fill(255);
  const free = (x: number, y: number) => x >= 0 && y >= 0 && x < side && y < side && x !== barred;
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++)
      WAYS.forEach(([i, j], way) => {
        if (free(x, y) && free(x + i, y + j)) steps[(y * side + x) * 8 + way] = 0;
      });
  return {
    x: 0,
    y: 0,
    side,
    start: Uint32Array.from({ length: side * side + 1 }, (_, k) => k),
    heightMm: new Int32Array(side * side).fill(250),
    steps,
    at: new Uint8Array(side * side).fill(128 + 4),
  };
}

export function groundOf(tile: Tile, bearingDeg = 0): Ground {
  const place = { originM: [10, 20, 0] as const, bearingDeg, cellM: 0.1, tileM: tile.side / 10 };
  const ground = new Ground(place, () => Promise.resolve(null));
  ground.put(tile);
  return ground;
}
