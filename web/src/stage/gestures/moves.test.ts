import { Vector2, Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { forward, type Pose } from "../pose";
import { around, beyond, orbit, shiftOf, tumble, uprighten } from "./moves";

function pose(): Pose {
  return {
    eye: new Vector3(0, -10, 4),
    target: new Vector3(0, 0, 1),
    up: new Vector3(0, 0, 1),
    projection: "perspective",
    angleDeg: 50,
    heightM: 10,
    throughM: 0,
  };
}

const PIVOT = new Vector3(2, 3, 1);
const tiltDeg = (p: Pose) => (Math.asin(-forward(p).z) * 180) / Math.PI;
const rightOf = (p: Pose) => new Vector3().crossVectors(forward(p), p.up).normalize();

describe("turning about a pivot", () => {
  test("keeps its distances and where it is seen, and verticals upright", () => {
    const p = pose();
    uprighten(p);
    const before = [p.eye.distanceTo(PIVOT), p.eye.distanceTo(p.target)];
    // Where the pivot lies beside and above the line of sight.
    const seen = (q: Pose) => {
      const to = PIVOT.clone().sub(q.eye).normalize();
      return [to.dot(rightOf(q)), to.dot(q.up)];
    };
    const [aside] = seen(p);
    orbit(p, PIVOT, 0.7, 0);
    expect(p.eye.distanceTo(PIVOT)).toBeCloseTo(before[0] ?? 0);
    expect(p.eye.distanceTo(p.target)).toBeCloseTo(before[1] ?? 0);
    expect(seen(p)[0]).toBeCloseTo(aside ?? 0);
    expect(rightOf(p).z).toBeCloseTo(0);
  });

  test("to the left and back is where it was", () => {
    const p = pose();
    uprighten(p);
    const eye = p.eye.clone();
    orbit(p, PIVOT, 1.1, 0.2);
    orbit(p, PIVOT, -1.1, 0);
    orbit(p, PIVOT, 0, -0.2);
    expect(p.eye.distanceTo(eye)).toBeLessThan(1e-9);
  });

  test.each([3, -3])("stops short of straight up and down (%d)", (pitch) => {
    const p = pose();
    uprighten(p);
    for (let k = 0; k < 4; k++) orbit(p, PIVOT, 0, pitch);
    expect(Math.abs(tiltDeg(p))).toBeGreaterThan(89);
    expect(Math.abs(tiltDeg(p))).toBeLessThan(90);
    expect(rightOf(p).z).toBeCloseTo(0);
  });

  test("freely it goes over the top, and the horizon with it", () => {
    const p = pose();
    uprighten(p);
    const before = p.up.z;
    tumble(p, PIVOT, 0, -Math.PI);
    expect(p.up.z).toBeCloseTo(-before);
    expect(p.up.length()).toBeCloseTo(1);
    expect(Math.abs(p.up.dot(forward(p)))).toBeLessThan(1e-9);
  });
});

test("a pose is righted unless it looks straight down", () => {
  const p = pose();
  p.up.set(0.5, 0.5, 0.7).normalize();
  uprighten(p);
  expect(rightOf(p).z).toBeCloseTo(0);
  expect(p.up.dot(forward(p))).toBeCloseTo(0);
  const down = { ...pose(), target: new Vector3(0, -10, 0), up: new Vector3(0.6, 0.8, 0) };
  uprighten(down);
  expect(down.up.toArray()).toEqual([0.6, 0.8, 0]);
});

test("an anchor goes from under one sight line to under another", () => {
  const p = pose();
  const anchor = new Vector3(1, 2, 0);
  const sight = (x: number, z: number) => ({
    origin: p.eye.clone(),
    direction: forward(p)
      .addScaledVector(new Vector3(1, 0, 0), x)
      .addScaledVector(p.up, z)
      .normalize(),
  });
  const from = { origin: p.eye.clone(), direction: anchor.clone().sub(p.eye).normalize() };
  const to = sight(0.2, 0.1);
  const [eye, reach] = [p.eye.clone(), p.eye.distanceTo(p.target)];
  const way = shiftOf(p, anchor, from, to);
  p.eye.add(way);
  p.target.add(way);
  // From the new eye, the anchor lies in the other direction.
  const seen = anchor.clone().sub(p.eye).normalize();
  expect(seen.distanceTo(to.direction)).toBeLessThan(1e-9);
  expect(p.eye.distanceTo(p.target)).toBeCloseTo(reach);
  // Carried across, not nearer.
  expect(p.eye.clone().sub(eye).dot(forward(p))).toBeCloseTo(0);
});

test("a finger goes around another one clockwise, also across where angles begin anew", () => {
  const size = { width: 800, height: 400 };
  const middle = new Vector2(0, 0);
  // 100 pixels above, right and left of the middle.
  const [above, right, left] = [new Vector2(0, 0.5), new Vector2(0.25, 0), new Vector2(-0.25, 0)];
  expect(around(middle, above, right, size)).toBeCloseTo(Math.PI / 2);
  expect(around(middle, left, above, size)).toBeCloseTo(Math.PI / 2);
  expect(around(middle, new Vector2(-0.25, 0.01), new Vector2(-0.25, -0.01), size)).toBeCloseTo(-0.04, 3);
});

test("what is within the least is nothing, and what is beyond counts from there", () => {
  expect([beyond(0.1, 0.2), beyond(0.5, 0.2), beyond(-0.5, 0.2)]).toEqual([0, 0.3, -0.3]);
});
