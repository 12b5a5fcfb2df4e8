import { Vector2, Vector3 } from "three";
import { fits, floorOf, NO_STEP, type Tile, WAYS } from "./tile";

/** Where the walk map lies: about the project's origin, y towards a bearing. */
export interface GroundPlace {
  originM: readonly [number, number, number];
  bearingDeg: number;
  cellM: number;
  tileM: number;
}

/** A floor of a cell; columns and rows are counted from the map's origin. */
export interface Floor {
  tile: Tile;
  index: number;
  column: number;
  row: number;
}

/** The walk map's tiles as far as they were fetched; looks up what the core decided. */
export class Ground {
  private readonly tiles = new Map<string, Tile>();
  private readonly asked = new Map<string, Promise<void>>();
  private readonly cos: number;
  private readonly sin: number;

  constructor(
    readonly place: GroundPlace,
    /** The tile at a place, or null where there is none. */
    private readonly fetchTile: (x: number, y: number) => Promise<Tile | null>,
  ) {
    const turn = (place.bearingDeg * Math.PI) / 180;
    this.cos = Math.cos(turn);
    this.sin = Math.sin(turn);
  }

  /** A point of the stage along the map's axes. */
  own(point: Vector3): Vector3 {
    const [ox, oy, oz] = this.place.originM;
    const [x, y] = [point.x - ox, point.y - oy];
    return new Vector3(x * this.cos - y * this.sin, x * this.sin + y * this.cos, point.z - oz);
  }

  /** A point of the map on the stage. */
  stage(point: Vector3): Vector3 {
    const [ox, oy, oz] = this.place.originM;
    const { x, y } = this.turned(new Vector2(point.x, point.y));
    return new Vector3(x + ox, y + oy, point.z + oz);
  }

  /** A direction of the map on the stage. */
  turned(direction: Vector2): Vector2 {
    const { x, y } = direction;
    return new Vector2(x * this.cos + y * this.sin, -x * this.sin + y * this.cos);
  }

  /** A direction of the stage along the map's axes. */
  ownDirection(direction: Vector2): Vector2 {
    const { x, y } = direction;
    return new Vector2(x * this.cos - y * this.sin, x * this.sin + y * this.cos);
  }

  /** Fetch the tiles within so many metres of a point of the map. */
  async load(x: number, y: number, reachM: number): Promise<void> {
    const { tileM } = this.place;
    const wanted: Promise<void>[] = [];
    for (let j = Math.floor((y - reachM) / tileM); j <= Math.floor((y + reachM) / tileM); j++)
      for (let i = Math.floor((x - reachM) / tileM); i <= Math.floor((x + reachM) / tileM); i++)
        wanted.push(this.want(i, j));
    await Promise.all(wanted);
  }

  private want(x: number, y: number): Promise<void> {
    const key = `${x}/${y}`;
    const known = this.asked.get(key);
    if (known) return known;
    const coming = this.fetchTile(x, y).then(
      (tile) => {
        if (tile) this.tiles.set(key, tile);
      },
      () => {
        this.asked.delete(key); // asked again when it is needed again
      },
    );
    this.asked.set(key, coming);
    return coming;
  }

  /** Keep a tile that was fetched already. */
  put(tile: Tile): void {
    this.tiles.set(`${tile.x}/${tile.y}`, tile);
    this.asked.set(`${tile.x}/${tile.y}`, Promise.resolve());
  }

  private cell(column: number, row: number): { tile: Tile; first: number; end: number } | null {
    const side = Math.round(this.place.tileM / this.place.cellM);
    const [x, y] = [Math.floor(column / side), Math.floor(row / side)];
    const tile = this.tiles.get(`${x}/${y}`);
    if (!tile) return null;
    const at = (row - y * side) * side + (column - x * side);
    return { tile, first: tile.start[at] ?? 0, end: tile.start[at + 1] ?? 0 };
  }

  columnAt(x: number): number {
    return Math.floor(x / this.place.cellM);
  }

  /** The floor below a point of the map on which the body fits, at most so far below it and a little above. */
  under(point: Vector3, belowM: number, aboveM: number): Floor | null {
    const [column, row] = [this.columnAt(point.x), this.columnAt(point.y)];
    const cell = this.cell(column, row);
    let best: Floor | null = null;
    if (!cell) return null;
    for (let index = cell.first; index < cell.end; index++) {
      const height = this.height({ tile: cell.tile, index, column, row });
      if (!fits(cell.tile, index) || height > point.z + aboveM || height < point.z - belowM) continue;
      if (!best || height > this.height(best)) best = { tile: cell.tile, index, column, row };
    }
    return best;
  }

  height(floor: Floor): number {
    return (floor.tile.heightMm[floor.index] ?? 0) / 1000;
  }

  /** The floor that a step along a way leads onto, or null. */
  step(floor: Floor, way: number): Floor | null {
    const step = floor.tile.steps[floor.index * 8 + way] ?? NO_STEP;
    const by = WAYS[way];
    if (step === NO_STEP || !by) return null;
    const [column, row] = [floor.column + by[0], floor.row + by[1]];
    const cell = this.cell(column, row);
    return cell ? { tile: cell.tile, index: cell.first + floorOf(step), column, row } : null;
  }

  /** Whether a step leads anywhere, fetched or not. */
  open(floor: Floor, way: number): boolean {
    return (floor.tile.steps[floor.index * 8 + way] ?? NO_STEP) !== NO_STEP;
  }
}
