import { Ray, Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { MOST_PLANES } from "../api/constants";
import { Clips, clipPlane, clipUniform, heightOver } from "./clips";

const up = new Vector3(0, 0, 1);
const level = (z: number) => clipPlane(up.clone(), new Vector3(0, 0, z));
const ray = (from: [number, number, number], way: [number, number, number]) =>
  new Ray(new Vector3(...from), new Vector3(...way).normalize());

test("what lies above a plane is taken away, unless it is to stay whole", () => {
  const clips = new Clips([level(2)], new Set([7]));
  expect(clips.takes(new Vector3(0, 0, 2.5), 1)).toBe(true);
  expect(clips.takes(new Vector3(0, 0, 1.5), 1)).toBe(false);
  expect(clips.takes(new Vector3(0, 0, 2.5), 7)).toBe(false);
  expect(clips.takes(new Vector3(5, 5, 2), 1)).toBe(false); // in the plane itself
});

test("a height is counted along the normal", () => {
  const slanted = clipPlane(new Vector3(1, 0, 1).normalize(), new Vector3(1, 0, 0));
  expect(heightOver(slanted, new Vector3(1, 9, 0))).toBeCloseTo(0);
  expect(heightOver(slanted, new Vector3(2, 0, 1))).toBeCloseTo(Math.SQRT2);
});

describe("a ray comes in", () => {
  const clips = new Clips([level(2), clipPlane(new Vector3(1, 0, 0), new Vector3(3, 0, 0))]);

  test("through the last of the planes that it crosses", () => {
    const entry = clips.entry(ray([5, 0, 10], [-1, 0, -1]));
    // The level plane after 8 down, the upright one after 2 along.
    expect(entry?.distance).toBeCloseTo(8 * Math.SQRT2);
    expect(entry?.plane.normal.z).toBe(1);
  });

  test("not at all start within, or goes away", () => {
    expect(clips.entry(ray([0, 0, 1], [0, 0, -1]))).toBeNull();
    expect(clips.entry(ray([0, 0, 10], [0, 0, 1]))).toBeNull();
  });
});

test("the shader gets as many planes as it has room for", () => {
  const into = clipUniform();
  expect(new Clips([level(2), level(3)]).fill(into)).toBe(2);
  expect(into[1]?.toArray()).toEqual([0, 0, 1, 3]);
  expect(new Clips(Array.from({ length: 40 }, () => level(1))).fill(into)).toBe(MOST_PLANES);
});
