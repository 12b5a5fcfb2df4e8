import { Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { Ground } from "./ground";
import { level } from "./testGround";
import { readTile, type Tile } from "./tile";

const PLACE = { originM: [0, 0, 0] as const, bearingDeg: 0, cellM: 0.1, tileM: 0.4 };

/** Two tiles side by side whose cells lead over the seam between them, at two heights. */
function pair(): Tile[] {
  return [0, 1].map((x) => {
    const tile = level(4);
    tile.heightMm.fill(x ? 410 : 250);
    for (let row = 0; row < 4; row++) {
      if (x === 0) tile.steps[(row * 4 + 3) * 8] = 0;
      else tile.steps[row * 4 * 8 + 4] = 0;
    }
    return { ...tile, x };
  });
}

describe("ground of several tiles", () => {
  test("a step over the seam leads onto the other tile, once it is here", () => {
    const ground = new Ground(PLACE, () => Promise.resolve(null));
    const [one, other] = pair();
    if (!one || !other) throw new Error("no tiles");
    ground.put(one);
    const floor = ground.under(new Vector3(0.35, 0.15, 1), 2, 0);
    expect(floor && ground.height(floor)).toBe(0.25);
    if (!floor) return;
    expect(ground.open(floor, 0)).toBe(true);
    expect(ground.step(floor, 0)).toBeNull();
    ground.put(other);
    const over = ground.step(floor, 0);
    expect(over && [over.column, over.row, ground.height(over)]).toEqual([4, 1, 0.41]);
    const back = over && ground.step(over, 4);
    expect(back && ground.height(back)).toBe(0.25);
  });

  test("the tiles within reach are fetched once each, and again where fetching failed", async () => {
    const asked: string[] = [];
    let broken = true;
    const ground = new Ground(PLACE, (x, y) => {
      asked.push(`${x}/${y}`);
      if (x === 0 && y === 0 && broken) return Promise.reject(new Error("gone"));
      return Promise.resolve(null);
    });
    await ground.load(0.2, 0.2, 0.1);
    expect(asked).toEqual(["0/0"]);
    broken = false;
    await ground.load(0.2, 0.2, 0.3);
    expect(asked.filter((each) => each === "0/0")).toHaveLength(2);
    expect(new Set(asked).size).toBe(9);
    const count = asked.length;
    await ground.load(0.2, 0.2, 0.3);
    expect(asked).toHaveLength(count);
  });

  test("of two floors above one another the one just below is stood on", () => {
    const tile = level(1);
    tile.start.set([0, 2]);
    const both: Tile = {
      ...tile,
      heightMm: Int32Array.from([0, 3000]),
      at: Uint8Array.from([132, 132]),
      steps: new Uint8Array(16).fill(255),
    };
    const ground = new Ground({ ...PLACE, tileM: 0.1 }, () => Promise.resolve(null));
    ground.put(both);
    const below = (z: number) => {
      const floor = ground.under(new Vector3(0.05, 0.05, z), 2, 0.2);
      return floor && ground.height(floor);
    };
    expect(below(1.7)).toBe(0);
    expect(below(2.9)).toBe(3);
    expect(below(4.7)).toBe(3);
    expect(below(5.3)).toBeNull();
    expect(ground.under(new Vector3(9, 9, 1), 2, 0)).toBeNull();
  });
});

test("a tile is read as the server packs it", () => {
  // Two cells along an edge: floors 1, 0, 2, 1.
  const [side, count] = [2, 4];
  const data = new ArrayBuffer(28 + count * (4 + 10 + 8 + 1 + 1) + side * side);
  const view = new DataView(data);
  new Uint8Array(data, 0, 4).set([..."WALK"].map((c) => c.charCodeAt(0)));
  view.setUint16(6, side, true);
  view.setInt32(8, -3, true);
  view.setInt32(12, 7, true);
  view.setUint32(16, count, true);
  const heights = [-4200, 0, 4000, 12_345];
  for (const [k, mm] of heights.entries()) view.setInt32(28 + 4 * k, mm, true);
  const steps = 28 + count * 14;
  new Uint8Array(data, steps, count * 8).fill(255);
  view.setUint8(steps + 8 * 2 + 3, 1);
  const spots = steps + count * 9;
  new Uint8Array(data, spots, count).set([4, 128 + 4, 128, 136]);
  new Uint8Array(data, spots + count, 4).set([1, 0, 2, 1]);
  const tile = readTile(data);
  expect([tile.x, tile.y, tile.side]).toEqual([-3, 7, 2]);
  expect([...tile.start]).toEqual([0, 1, 1, 3, 4]);
  expect([...tile.heightMm]).toEqual(heights);
  expect(tile.steps[19]).toBe(1);
  expect([...tile.at]).toEqual([4, 132, 128, 136]);
});
