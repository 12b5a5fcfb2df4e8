/** The way of a neighbour that cannot be entered. */
export const NO_STEP = 255;
const FLOOR = 63;
const FITS = 128;
const HEAD_BYTES = 28;

/** The eight neighbours of a cell, in the map's own order. */
export const WAYS = [
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
  [0, -1],
  [1, -1],
] as const;

/** A square of the walk map for one body, as the server packs it; columns run over the floors of its cells. */
export interface Tile {
  x: number;
  y: number;
  /** Cells along an edge. */
  side: number;
  /** Where the floors of each cell begin; one more than there are cells. */
  start: Uint32Array;
  heightMm: Int32Array;
  /** Which floor of each of eight neighbours is entered. */
  steps: Uint8Array;
  /** The place within the cell, of nine, and whether the body fits. */
  at: Uint8Array;
}

/** Read a tile: a head, columns of so many bytes a floor, and floors per cell. */
export function readTile(data: ArrayBuffer): Tile {
  const view = new DataView(data);
  const magic = String.fromCharCode(...new Uint8Array(data, 0, 4));
  if (magic !== "WALK") throw new Error("This is no tile of a walk map.");
  const side = view.getUint16(6, true);
  const count = view.getUint32(16, true);
  let at = HEAD_BYTES;
  const take = (bytes: number): ArrayBuffer => {
    const piece = data.slice(at, at + bytes);
    at += bytes;
    return piece;
  };
  const heightMm = new Int32Array(take(count * 4));
  at += count * (4 + 4 + 2); // whose floor it is, who takes the room, and what is free above
  const steps = new Uint8Array(take(count * 8));
  at += count; // what is free beside
  const spot = new Uint8Array(take(count));
  const floors = new Uint8Array(take(side * side));
  const start = new Uint32Array(side * side + 1);
  for (let cell = 0; cell < floors.length; cell++) start[cell + 1] = (start[cell] ?? 0) + (floors[cell] ?? 0);
  return { x: view.getInt32(8, true), y: view.getInt32(12, true), side, start, heightMm, steps, at: spot };
}

export const floorOf = (step: number): number => step & FLOOR;
export const fits = (tile: Tile, floor: number): boolean => ((tile.at[floor] ?? 0) & FITS) > 0;
