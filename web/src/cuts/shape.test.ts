import { Box3, Ray, Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { LEAST_CUT_M } from "../api/constants";
import { withDragged } from "../open/cuts/cutting";
import {
  type CutShape,
  clipOf,
  cornersOf,
  facingOf,
  flipped,
  isLevel,
  moved,
  normalOf,
  sidesOf,
  spokenHeight,
  turnedTo,
} from "../open/cuts/shape";
import { federationOf } from "../open/testFederation";
import { anchorOn } from "./anchor";

const PLANE: CutShape = { kind: "plane", point_m: [0, 0, 3], normal: [0, 0, 2] };
const BAND: CutShape = { kind: "band", point_m: [0, 0, 3], normal: [0, 0, 1], thick_m: 0.5 };
const BOX: CutShape = { kind: "box", centre_m: [10, 20, 1], size_m: [4, 6, 2], bearing_deg: 90 };

describe("the sides of a cut", () => {
  test("of a plane there is one, with a normal of length one", () => {
    expect(sidesOf(PLANE)).toEqual([{ normal: [0, 0, 1], point_m: [0, 0, 3] }]);
  });

  test("a band has its plane and another below that looks down", () => {
    const [, low] = sidesOf(BAND);
    expect(low?.normal[2]).toBe(-1);
    expect(low?.point_m[2]).toBe(2.5);
  });

  test("those of a box look outwards and turn with it", () => {
    const sides = sidesOf(BOX);
    expect(sides).toHaveLength(6);
    // Turned by 90 degrees its first axis points south.
    expect(sides[0]?.normal.map((c) => Math.round(c) || 0)).toEqual([0, -1, 0]);
    expect(sides[0]?.point_m.map((c) => Math.round(c * 1e6) / 1e6)).toEqual([10, 18, 1]);
    expect(sides[4]?.point_m[2]).toBe(2);
  });

  test("the stage counts them from its origin", () => {
    expect(clipOf({ normal: [0, 0, 1], point_m: [412_300, 88_650, 8] }, [412_300, 88_650, 5]).at).toBe(3);
  });
});

describe("moving a side", () => {
  test("a plane goes along its normal", () => {
    expect(moved({ ...PLANE, normal: [0, 0, 1] }, 0, -0.4)).toMatchObject({ point_m: [0, 0, 2.6] });
  });

  test("a band grows at the side that is moved, and is never turned inside out", () => {
    expect(moved(BAND, 0, 0.2)).toMatchObject({ point_m: [0, 0, 3.2], thick_m: 0.7 });
    expect(moved(BAND, 1, 0.2)).toMatchObject({ point_m: [0, 0, 3], thick_m: 0.7 });
    const thin = moved(BAND, 1, -9);
    expect(thin.kind === "band" && thin.thick_m).toBe(LEAST_CUT_M);
  });

  test("of a box the side opposite stays where it is", () => {
    const grown = moved(BOX, 0, 1);
    expect(grown).toMatchObject({ size_m: [5, 6, 2] });
    const before = sidesOf(BOX)[1]?.point_m ?? [];
    sidesOf(grown)[1]?.point_m.forEach((c, k) => {
      expect(c).toBeCloseTo(before[k] ?? 0);
    });
  });
});

test("turned over, a cut leaves what it took; a band stays where it is", () => {
  expect(flipped(PLANE)).toMatchObject({ normal: [0, 0, -2], point_m: [0, 0, 3] });
  const [one, other] = sidesOf(flipped(BAND));
  expect([one?.point_m[2], other?.point_m[2]]).toEqual([2.5, 3]);
  expect(flipped(BOX)).toBe(BOX);
});

test("a level cut is called by its storey and its height above it", () => {
  const federation = federationOf(
    { a: [["w", 0, 0]] },
    {
      levels: [
        { name: "Level 00", elevation_m: 0, begins_m: -0.25 },
        { name: "Level 01", elevation_m: 4, begins_m: 3.75 },
      ],
    },
  );
  expect(spokenHeight(federation, 5.2)).toBe("Level 01 + 1.20 m");
  expect(spokenHeight(federation, 3.9)).toBe("Level 01 - 0.10 m");
  expect(isLevel(PLANE)).toBe(true);
  expect(isLevel({ ...PLANE, normal: [0, 1, 1] })).toBe(false);
  expect(isLevel(BOX)).toBe(false);
});

test("what is dragged stands for the cut that it is", () => {
  const cuts = [{ id: "a", shape: PLANE, name: "A", off: false }];
  const [cut] = cuts;
  if (!cut) throw new Error("there is one");
  expect(withDragged(cuts, null)).toBe(cuts);
  expect(withDragged(cuts, { ...cut, name: "B" }).map((c) => c.name)).toEqual(["B"]);
});

test("a tab stands beside the middle of the view where the plane is near the building, else at the foot of its middle", () => {
  const bounds = new Box3(new Vector3(0, 0, 0), new Vector3(10, 10, 10));
  const plane = { point: new Vector3(0, 0, 4), normal: new Vector3(0, 0, 1) };
  const sheet = {
    size: { width: 100, height: 100 },
    // Seen from above: pixels are tenths of metres.
    rayAtPixel: (x: number, y: number) =>
      new Ray(new Vector3(x / 10, 10 - y / 10, 50), new Vector3(0, 0, -1)),
  };
  expect(anchorOn(plane, bounds, sheet).toArray()).toEqual([8.2, 5, 4]);
  expect(anchorOn(plane, bounds, sheet, 1).toArray()).toEqual([3, 5, 4]);
  const away = { ...sheet, rayAtPixel: () => new Ray(new Vector3(0, 0, 50), new Vector3(0, 1, 0)) };
  expect(anchorOn(plane, bounds, away).toArray()).toEqual([5, 5, 4]);
});

test("a plane faces and leans as it is typed, and its normal says the same again", () => {
  expect(facingOf([0, 0, 1], 30)).toEqual({ facingDeg: 0, leanDeg: 90 });
  expect(normalOf({ facingDeg: 90, leanDeg: 0 }, 0)).toEqual([1, 0, 0]);
  expect(normalOf({ facingDeg: 0, leanDeg: -90 }, 0)).toEqual([0, 0, -1]);
  for (const wanted of [
    { facingDeg: 12, leanDeg: 35 },
    { facingDeg: 350, leanDeg: -60 },
  ]) {
    const back = facingOf(normalOf(wanted, 77), 77);
    expect(back.facingDeg).toBeCloseTo(wanted.facingDeg);
    expect(back.leanDeg).toBeCloseTo(wanted.leanDeg);
  }
  expect(turnedTo(BAND, [1, 0, 0], [1, 2, 3])).toMatchObject({
    normal: [1, 0, 0],
    point_m: [1, 2, 3],
    thick_m: 0.5,
  });
  expect(turnedTo(BOX, [1, 0, 0], [1, 2, 3])).toBe(BOX);
});

test("the corners of a box lie along its bearing", () => {
  const corners = cornersOf({ kind: "box", centre_m: [10, 20, 3], size_m: [4, 2, 1], bearing_deg: 90 });
  expect(corners).toHaveLength(8);
  // Its second side runs east, so its first runs south.
  expect(Math.max(...corners.map(([x = 0]) => x))).toBeCloseTo(11, 9);
  expect(Math.max(...corners.map(([, y = 0]) => y))).toBeCloseTo(22, 9);
  expect(Math.max(...corners.map(([, , z = 0]) => z))).toBeCloseTo(3.5, 9);
});
