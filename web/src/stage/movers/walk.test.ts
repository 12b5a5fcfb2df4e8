import { Vector2, Vector3 } from "three";
import { describe, expect, test } from "vitest";
import type { Pose } from "../pose";
import type { Ground } from "./ground";
import { Heading } from "./mover";
import { groundOf, level } from "./testGround";
import { readTile } from "./tile";
import { tick, type Walker } from "./walker";

function at(ground: Ground, x: number, y: number): Walker {
  const floor = ground.under(new Vector3(x, y, 1), 2, 0);
  if (!floor) throw new Error("no floor");
  return { x, y, floor, feet: 0.25, vx: 0, vy: 0, blocked: -1 };
}

describe("the ground", () => {
  test("turns points there and back", () => {
    const ground = groundOf(level(4), -17);
    const point = new Vector3(3, 4, 5);
    const back = ground.stage(ground.own(point));
    expect(back.distanceTo(point)).toBeLessThan(1e-12);
    // The map's y points 17 degrees to the left of the stage's.
    const y = ground.turned(new Vector2(0, 1));
    expect(y.x).toBeCloseTo(-Math.sin((17 * Math.PI) / 180));
    expect(ground.ownDirection(y).y).toBeCloseTo(1);
  });

  test("finds the floor below a point only where the body fits", () => {
    const tile = level(4);
    const ground = groundOf(tile);
    expect(ground.height(at(ground, 0.15, 0.15).floor)).toBe(0.25);
    tile.at.fill(4);
    expect(ground.under(new Vector3(0.15, 0.15, 1), 2, 0)).toBeNull();
  });
});

describe("a step", () => {
  test("comes up to speed, and a barred column stops it", () => {
    const ground = groundOf(level(40, 30));
    const walker = at(ground, 0.55, 2);
    for (let k = 0; k < 60; k++) tick(ground, walker, 1.4, 0);
    expect(walker.x).toBeCloseTo(0.55 + 1.4 * (1 - 0.12), 1);
    expect(walker.blocked).toBe(-1);
    for (let k = 0; k < 120; k++) tick(ground, walker, 1.4, 0);
    expect(walker.x).toBeLessThan(3);
    expect(walker.x).toBeGreaterThan(2.95);
    expect(walker.blocked).toBe(0);
    for (let k = 0; k < 60; k++) tick(ground, walker, 1.4, 1.4);
    expect(walker.y).toBeGreaterThan(3);
  });
});

test("looking drags what is under the cursor along", () => {
  const heading = new Heading(0, 0);
  heading.drag(100, 0, 1000, 60);
  expect(heading.bearingDeg).toBeCloseTo(354);
  heading.drag(0, 100, 1000, 60);
  expect(heading.tiltDeg).toBeCloseTo(6);
  const pose: Pose = {
    eye: new Vector3(),
    target: new Vector3(0, 1, 0),
    up: new Vector3(0, 0, 1),
    projection: "perspective",
    angleDeg: 60,
    heightM: 3,
    throughM: 0,
  };
  heading.put(pose, new Vector3(1, 2, 3));
  expect(pose.eye.toArray()).toEqual([1, 2, 3]);
  expect(pose.target.z).toBeLessThan(3);
});

test("what is no tile is refused", () => {
  expect(() => readTile(new ArrayBuffer(64))).toThrow("no tile");
});
