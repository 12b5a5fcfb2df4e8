import { Vector3 } from "three";
import { expect, test } from "vitest";
import { along, forward, type Pose } from "../stage/pose";
import { aimed, alongLine, cornersOf, cutLine, onPlane, ontoSheet, sheetAxes, shiftOn } from "./sheet";

function pose(bearingDeg: number, tiltDeg: number): Pose {
  const { forward: into, up } = along(bearingDeg, tiltDeg);
  const eye = new Vector3(10, 20, 5);
  const target = eye.clone().addScaledVector(into, 8);
  return { eye, target, up, projection: "parallel", angleDeg: 30, heightM: 12, throughM: 0 };
}
const close = (a: Vector3, b: readonly number[]) => {
  for (const [i, v] of a.toArray().entries()) expect(v).toBeCloseTo(b[i] ?? Number.NaN, 9);
};

test("dragging on a plan moves across the floor, on an elevation up and along the facade", () => {
  close(shiftOn(pose(0, 90), 600, 50, 0), [1, 0, 0]);
  close(shiftOn(pose(0, 90), 600, 0, 50), [0, -1, 0]);
  close(shiftOn(pose(90, 90), 600, 50, 0), [0, -1, 0]);
  close(shiftOn(pose(0, 0), 600, 50, -25), [1, 0, 0.5]);
  close(shiftOn(pose(180, 0), 600, 50, 0), [-1, 0, 0]);
});

test("the corners of a drawing lie in its cut, its height and width apart", () => {
  const corners = cornersOf(pose(37, 0), 1.5);
  const { into } = sheetAxes(pose(37, 0));
  for (const corner of corners) expect(corner.sub(new Vector3(10, 20, 5)).dot(into)).toBeCloseTo(0, 9);
  const [a, b, c] = cornersOf(pose(37, 0), 1.5) as [Vector3, Vector3, Vector3, Vector3];
  expect(a.distanceTo(b)).toBeCloseTo(18, 9);
  expect(b.distanceTo(c)).toBeCloseTo(12, 9);
});

test("an eye that is carried keeps its target and stands upright", () => {
  const before = pose(0, 10);
  const eye = new Vector3(3, 4, 5);
  const after = aimed(before, eye, before.target.clone());
  close(after.target, before.target.toArray());
  expect(after.up.dot(forward(after))).toBeCloseTo(0, 9);
  expect(after.up.z).toBeGreaterThan(0);
  const right = new Vector3().crossVectors(forward(after), after.up);
  expect(right.z).toBeCloseTo(0, 9);
});

test("looking straight down keeps what was ahead at the top", () => {
  const before = pose(90, 20);
  const after = aimed(before, before.eye, before.eye.clone().setZ(0));
  close(after.up, [1, 0, 0]);
});

test("an eye is never put into its target", () => {
  const before = pose(0, 0);
  expect(aimed(before, before.target.clone(), before.target.clone())).toBe(before);
});

test("a ray meets a plane before it, and none that it runs along", () => {
  const ray = { origin: new Vector3(0, 0, 10), direction: new Vector3(0, 0, -1) };
  close(onPlane(ray, new Vector3(7, 7, 2), new Vector3(0, 0, 1)) ?? new Vector3(), [0, 0, 2]);
  expect(onPlane(ray, new Vector3(0, 0, 20), new Vector3(0, 0, 1))).toBeNull();
  expect(onPlane(ray, new Vector3(), new Vector3(1, 0, 0))).toBeNull();
});

test("a ray passes a line closest where both say so", () => {
  const ray = { origin: new Vector3(0, -10, 4), direction: new Vector3(0, 1, 0) };
  expect(alongLine(ray, new Vector3(0, 0, 1), new Vector3(0, 0, 1))).toBeCloseTo(3, 9);
  const slanted = { origin: new Vector3(0, -10, 0), direction: new Vector3(0, 1, 0.5).normalize() };
  expect(alongLine(slanted, new Vector3(0, 0, 0), new Vector3(0, 0, 1))).toBeCloseTo(5, 9);
  expect(alongLine(ray, new Vector3(3, 0, 0), new Vector3(0, 1, 0))).toBeNull();
});

test("a drawing is cut in another one along a line through its eye, as wide as it is", () => {
  const [plan, section] = [pose(0, 90), pose(90, 0)];
  const line = cutLine(plan, section, 1.5);
  if (!line) throw new Error("a section is cut in a plan");
  expect(line.from.distanceTo(line.to)).toBeCloseTo(18, 9);
  close(line.from.clone().add(line.to).multiplyScalar(0.5), [10, 20, 5]);
  // It looks east, so it is cut from north to south.
  for (const end of [line.from, line.to]) expect(end.x).toBeCloseTo(10, 9);
  close(line.into, [1, 0, 0]);
  // In the section the plan is cut at its height.
  const level = cutLine(section, plan, 1.5);
  expect([level?.from.z, level?.to.z]).toEqual([5, 5]);
});

test("drawings that look alike are cut nowhere in one another", () => {
  expect(cutLine(pose(0, 0), pose(0, 0), 1)).toBeNull();
  expect(cutLine(pose(0, 0), pose(180, 0), 1)).toBeNull();
});

test("what lies beyond a sheet is brought to its edge along its way, and what is on it stays", () => {
  const size = { width: 400, height: 300 };
  expect(ontoSheet({ x: 100, y: 100 }, { x: 0, y: -1 }, size, 10)).toBeCloseTo(0);
  expect(ontoSheet({ x: 100, y: 450 }, { x: 0, y: -1 }, size, 10)).toBeCloseTo(160);
  expect(ontoSheet({ x: -50, y: 100 }, { x: 1, y: 0 }, size, 10)).toBeCloseTo(60);
  // Beside its way it is nowhere on the sheet, and stays.
  expect(ontoSheet({ x: -50, y: 100 }, { x: 0, y: -1 }, size, 10)).toBeCloseTo(0);
});
