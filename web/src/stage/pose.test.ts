import { Vector3 } from "three";
import { expect, test } from "vitest";
import { fineReach } from "./layers/materials";
import { between, copyPose, focalMm, forward, fromShape, looking, type Pose, toShape } from "./pose";

function pose(eye: [number, number, number], target: [number, number, number]): Pose {
  return {
    eye: new Vector3(...eye),
    target: new Vector3(...target),
    up: new Vector3(0, 0, 1),
    projection: "perspective",
    angleDeg: 60,
    heightM: 10,
    throughM: 0,
  };
}

test.each([
  [[0, 10, 0], 0, 0],
  [[10, 0, 0], 90, 0],
  [[0, -10, 0], 180, 0],
  [[-10, 0, 0], 270, 0],
  [[0, 10, -10], 0, 45],
] as [[number, number, number], number, number][])(
  "looking at %j is bearing %d, tilt %d",
  (target, bearing, tilt) => {
    const found = looking(pose([0, 0, 0], target));
    expect(found.bearingDeg).toBeCloseTo(bearing, 9);
    expect(found.tiltDeg).toBeCloseTo(tilt, 9);
  },
);

test("straight down, the bearing is what is up on the screen", () => {
  const down = pose([0, 0, 10], [0, 0, 0]);
  down.up.set(1, 0, 0);
  expect(looking(down)).toEqual({ bearingDeg: 90, tiltDeg: 90 });
});

test("a pose goes over the wire and comes back the same", () => {
  const there = pose([1.5, -2.25, 3], [4, 5, 6]);
  expect(toShape(fromShape(toShape(there)))).toEqual(toShape(there));
});

test("between two poses the ends are the poses themselves and the way is level", () => {
  const from = pose([0, -10, 0], [0, 0, 0]);
  const to = pose([10, 0, 5], [0, 0, 0]);
  expect(between(from, to, 0).eye.distanceTo(from.eye)).toBeLessThan(1e-9);
  expect(between(from, to, 1).target.distanceTo(to.target)).toBeLessThan(1e-9);
  const half = between(from, to, 0.5);
  expect(forward(half).length()).toBeCloseTo(1, 9);
  expect(half.eye.toArray()).toEqual([5, -5, 2.5]);
});

test("a copy does not move with the pose it was made of", () => {
  const first = pose([0, 0, 0], [1, 1, 1]);
  const copy = copyPose(first);
  first.eye.set(9, 9, 9);
  expect(copy.eye.toArray()).toEqual([0, 0, 0]);
});

test("53.13 degrees are 36 mm on a frame 36 mm wide", () => {
  expect(focalMm((2 * Math.atan(0.5) * 180) / Math.PI)).toBeCloseTo(36, 9);
});

test("fine edges reach as far as they are a pixel and a half", () => {
  expect(fineReach(0.001, false)).toBeCloseTo(40, 9);
  expect(fineReach(0.01, true)).toBe(Number.POSITIVE_INFINITY);
  expect(fineReach(0.1, true)).toBe(0);
});

test("bearing is clockwise from north, tilt is above zero looking down", () => {
  const look = looking(pose([0, 0, 10], [10, 0, 0]));
  expect(look.bearingDeg).toBeCloseTo(90);
  expect(look.tiltDeg).toBeCloseTo(45);
});
