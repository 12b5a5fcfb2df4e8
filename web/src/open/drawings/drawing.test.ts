import { Vector3 } from "three";
import { expect, test } from "vitest";
import type { Pose } from "../../stage/pose";
import { federationOf } from "../testFederation";
import { drawingOf, ontoCut } from "./cutDrawing";
import { elevationsOf, levelOf, lookOf, plansOf, sameDrawing, spokenDrawing } from "./drawing";

const federation = federationOf(
  {},
  {
    levels: [
      { name: "Level 00", elevation_m: 0, begins_m: -0.25, plan: "a" },
      { name: "Level 01", elevation_m: 4, begins_m: 3.75, plan: "b" },
      { name: "Attic", elevation_m: 8, begins_m: 7.75, plan: null },
    ],
  },
);
const directions = [
  { name: "front", bearing_deg: 0, tilt_deg: 0 },
  { name: "right", bearing_deg: 270, tilt_deg: 0 },
  { name: "front right", bearing_deg: 315, tilt_deg: 0 },
  { name: "top", bearing_deg: 0, tilt_deg: 90 },
];

test("there is a plan of every storey that has one, the highest first", () => {
  expect(plansOf(federation).map(spokenDrawing)).toEqual(["Plan Level 01", "Plan Level 00"]);
});

test("there is an elevation of each side, turned with the front", () => {
  const elevations = elevationsOf(directions, 100);
  expect(elevations.map(spokenDrawing)).toEqual(["Front elevation", "Right elevation"]);
  expect(elevations.map((e) => lookOf(e, 0).bearing_deg)).toEqual([100, 10]);
});

test("a plan is looked at straight down with north up the sheet", () => {
  expect(lookOf({ kind: "plan", storey: "Level 00" }, 23)).toEqual({ bearing_deg: 23, tilt_deg: 90 });
});

test("a plan knows its level, an elevation has none", () => {
  const [plan] = plansOf(federation);
  if (!plan) throw new Error("no plan");
  expect(levelOf(federation, plan)).toBe(1);
  expect(levelOf(federation, { kind: "elevation", name: "x", bearingDeg: 0, tiltDeg: 0 })).toBe(-1);
  expect(sameDrawing(plan, { kind: "plan", storey: "Level 01" })).toBe(true);
  expect(sameDrawing(plan, null)).toBe(false);
});

test("a cut is drawn against the side that it takes away, a level one as its storey is", () => {
  const level = { kind: "plane", point_m: [0, 0, 5.2], normal: [0, 0, 1] } as const;
  const upright = { kind: "plane", point_m: [3, 0, 0], normal: [0, -1, 0] } as const;
  const cut = (shape: Parameters<typeof drawingOf>[1]["shape"]) =>
    drawingOf(federation, { id: "c", name: "A", shape, off: false });
  const plan = cut({ ...level, point_m: [...level.point_m], normal: [...level.normal] });
  expect(plan).toMatchObject({ storey: "Level 01", tiltDeg: 90 });
  expect(plan && levelOf(federation, plan)).toBe(1);
  expect(plan && lookOf(plan, 30)).toEqual({ bearing_deg: 30, tilt_deg: 90 });
  const north = cut({ ...upright, point_m: [...upright.point_m], normal: [...upright.normal] });
  expect(north && spokenDrawing(north)).toBe("Cut A");
  expect(north && lookOf(north, 30)).toEqual({ bearing_deg: 0, tilt_deg: 0 });
  expect(cut({ kind: "box", centre_m: [0, 0, 0], size_m: [1, 1, 1], bearing_deg: 0 })).toBeNull();
});

test("the eye of a drawing goes onto the plane of its cut", () => {
  const pose: Pose = {
    eye: new Vector3(0, -50, 2),
    target: new Vector3(0, 0, 2),
    up: new Vector3(0, 0, 1),
    projection: "parallel",
    angleDeg: 30,
    heightM: 20,
    throughM: 0,
  };
  const at = ontoCut(
    pose,
    { id: "c", name: "", off: false, shape: { kind: "plane", point_m: [107, 12, 0], normal: [0, -1, 0] } },
    [100, 0, 0],
  );
  expect(at.eye.toArray()).toEqual([0, 12, 2]);
  expect(at.target.toArray()).toEqual([0, 62, 2]);
});
