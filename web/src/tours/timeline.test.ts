import { Vector3 } from "three";
import { expect, test } from "vitest";
import { Tour as Way } from "../open/walking/tour";
import type { Pose } from "../stage/pose";
import { GLIDE_S, HOLD_S, Timeline } from "./timeline";

const pose = (x: number, y: number): Pose => ({
  eye: new Vector3(x, y, 1.6),
  target: new Vector3(x, y + 5, 1.6),
  up: new Vector3(0, 0, 1),
  projection: "perspective",
  angleDeg: 60,
  heightM: 3,
  throughM: 0,
});

test("each stop is looked at, with a glide between two", () => {
  const line = new Timeline([pose(0, 0), pose(10, 0)], [null, null], 1.6);
  expect(line.seconds).toBe(2 * HOLD_S + GLIDE_S);
  expect(line.at(HOLD_S / 2)?.pose.eye.x).toBe(0);
  expect(line.at(HOLD_S + GLIDE_S / 2)?.pose.eye.x).toBeCloseTo(5);
  expect(line.at(999)).toMatchObject({ stop: 1 });
  expect(line.at(999)?.pose.eye.x).toBe(10);
  expect(line.at(-1)?.stop).toBe(0);
});

test("what is seen changes half way", () => {
  const line = new Timeline([pose(0, 0), pose(10, 0)], [null, null], 1.6);
  expect(line.at(HOLD_S + GLIDE_S * 0.4)?.stop).toBe(0);
  expect(line.at(HOLD_S + GLIDE_S * 0.6)?.stop).toBe(1);
  expect(line.reached(1)).toBe(HOLD_S + GLIDE_S);
});

test("on foot the eye follows the way, and looks along it", () => {
  const way = new Way([new Vector3(0, 0, 0), new Vector3(0, 15, 0), new Vector3(15, 15, 0)]);
  const line = new Timeline([pose(0, 0), pose(15, 15)], [way, null], 1.6);
  expect(line.seconds).toBe(2 * HOLD_S + 20);
  const corner = line.at(HOLD_S + 10)?.pose;
  expect(corner?.eye.toArray()).toEqual([0, 15, 1.6]);
  const later = line.at(HOLD_S + 15)?.pose;
  expect(later?.target.clone().sub(later.eye).x).toBeCloseTo(1);
  expect(line.at(HOLD_S + 0.001)?.pose.target.y).toBeCloseTo(5, 1);
});

test("a tour of one stop stays there, and one of none is nowhere", () => {
  expect(new Timeline([pose(1, 1)], [null], 1.6).seconds).toBe(HOLD_S);
  expect(new Timeline([], [], 1.6).at(0)).toBeNull();
});
