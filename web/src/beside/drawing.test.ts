import { expect, test } from "vitest";
import { federationOf } from "../open/testFederation";
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
