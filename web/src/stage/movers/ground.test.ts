import fixture from "@cases/walk_tile.json";
import { Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { Ground } from "./ground";
import { level } from "./testGround";
import { NO_STEP, readTile, type Tile } from "./tile";

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
  const packed = Uint8Array.from(atob(fixture.bytes), (c) => c.charCodeAt(0));
  const tile = readTile(packed.buffer);
  expect([tile.x, tile.y, tile.side]).toEqual([-3, 7, 2]);
  expect([...tile.start]).toEqual(fixture.start);
  expect([...tile.heightMm]).toEqual(fixture.heights_mm);
  expect([...tile.at]).toEqual(fixture.at);
  const [floor = 0, way = 0, to] = fixture.step;
  expect([...tile.steps].flatMap((step, k) => (step === NO_STEP ? [] : [k, step]))).toEqual([
    floor * 8 + way,
    to,
  ]);
});
