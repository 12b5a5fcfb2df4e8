import { Box3, Vector3 } from "three";
import { expect, test } from "vitest";
import { forward, type Pose } from "../stage/pose";
import { placeBefore } from "./placeBefore";

const FLIGHT = new Box3(new Vector3(4, -0.6, 0), new Vector3(7, 0.6, 2));

/** Somebody who looks through 40 degrees, and whom nothing is behind for so far. */
function seen(behindM = 99) {
  const pose: Pose = {
    eye: new Vector3(50, 50, 50),
    target: new Vector3(),
    up: new Vector3(0, 0, 1),
    projection: "parallel",
    angleDeg: 40,
    heightM: 5,
    throughM: 0,
  };
  return {
    pose,
    boxOf: (components: readonly number[]) => (components.length ? FLIGHT : new Box3()),
    clear: (from: Vector3, to: Vector3) => Math.min(behindM, from.distanceTo(to)),
  };
}

test("one stands so far before what ends the way that the lens sees all of it", () => {
  const pose = placeBefore(seen(), new Vector3(3.5, 0, 0), [], [1]);
  expect([pose.projection, pose.angleDeg]).toEqual(["perspective", 40]);
  expect(pose.target).toEqual(FLIGHT.getCenter(new Vector3()));
  expect(pose.eye.z).toBe(1.6);
  const half = Math.cos((20 * Math.PI) / 180);
  for (const x of [4, 7])
    expect(new Vector3(x, 0, 1).sub(pose.eye).normalize().dot(forward(pose))).toBeGreaterThan(half);
});

test("a wall behind keeps one before it", () => {
  const pose = placeBefore(seen(1), new Vector3(3.5, 0, 0), [], [1]);
  expect(pose.eye.x).toBeCloseTo(3.5 - 0.7, 9);
});

test("one looks the way one comes, where there is nothing to look at but the place", () => {
  const pose = placeBefore(seen(), new Vector3(3, 5, 0), [new Vector3(3, 0, 0), new Vector3(3, 5, 0)], []);
  expect(pose.eye.y).toBeCloseTo(2.8);
  expect(forward(pose).y).toBeGreaterThan(0.9);
});
