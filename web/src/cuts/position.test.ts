import { expect, test } from "vitest";
import { federationOf } from "../open/testFederation";
import { positionOf } from "./position";

const federation = {
  ...federationOf({ one: [["a", 0, 0]] }, {}, []),
  building_north_deg: 0,
  origin_m: [100, 50, 0],
  bounds_m: [
    [100, 50, 0],
    [120, 62, 8],
  ] as [number[], number[]],
};
const axes = [
  {
    tag: "A",
    ends: [
      [0, 0],
      [20, 0],
    ],
  },
  {
    tag: "B",
    ends: [
      [0, 12],
      [20, 12],
    ],
  },
  {
    tag: "1",
    ends: [
      [0, 0],
      [0, 12],
    ],
  },
];
const of = (normal: number[], [x = 0, y = 0, z = 0]: number[]) =>
  positionOf({ normal, point_m: [100 + x, 50 + y, z] }, federation, axes);

test("a level cut is above its storey, whichever side is seen", () => {
  const name = federation.levels[0]?.name;
  const overM = 1.2;
  const at = [5, 5, (federation.levels[0]?.elevation_m ?? 0) + overM];
  expect(of([0, 0, 1], at)).toEqual({ from: `above ${name}`, distanceM: overM, along: 1 });
  expect(of([0, 0, -1], at)).toEqual({ from: `above ${name}`, distanceM: overM, along: -1 });
});

test("an upright cut is so far from the nearest grid line along it; flipping it changes nothing but the way", () => {
  expect(of([0, 1, 0], [3, 2, 1])).toEqual({ from: "north of grid A", distanceM: 2, along: 1 });
  expect(of([0, -1, 0], [3, 2, 1])).toEqual({ from: "north of grid A", distanceM: 2, along: -1 });
  expect(of([0, 1, 0], [3, 11.5, 1])).toEqual({ from: "north of grid B", distanceM: -0.5, along: 1 });
  expect(of([-1, 0, 0], [4, 2, 1])).toEqual({ from: "east of grid 1", distanceM: 4, along: -1 });
});

test("any other cut is so far from the middle of the building along its normal", () => {
  const askew = of([0.6, 0.8, 0], [10 + 0.6 * 3, 6 + 0.8 * 3, 1]);
  expect(askew.from).toBe("north-east of the middle");
  expect(askew.distanceM).toBeCloseTo(3, 9);
  const leaning = of([0, -0.6, 0.8], [10, 6, 5]);
  expect(leaning).toMatchObject({ from: "north of the middle", along: -1 });
  expect(leaning.distanceM).toBeCloseTo(-0.8, 9);
});
