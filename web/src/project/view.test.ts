import { Vector3 } from "three";
import { expect, test } from "vitest";
import type { Federation } from "../api/client";
import { between, looking, type Pose } from "../stage/pose";
import { nameFrom } from "../start/naming";
import { fromView, toView } from "./view";

const federation = (origin: number[], ids: string[]): Federation => ({
  id: "p",
  name: "House",
  version: 1,
  trouble: "",
  origin_m: origin,
  bounds_m: null,
  building_north_deg: 0,
  true_north_deg: null,
  disciplines: [{ code: "ARC", name: "Architecture", colour: "#7d8790" }],
  levels: [{ name: "Level 00", elevation_m: 0 }],
  rooms: [],
  colours: ["#ffffff"],
  models: [
    {
      id: "m",
      name: "m",
      first: 0,
      stands: true,
      count: 0,
      elsewhere: false,
      named: "",
      placed: "",
      alternative_what: null,
      alternative_option: null,
      global_ids: ids,
      labels: ids,
      level: ids.map(() => 0),
      discipline: ids.map(() => 0),
      colour: ids.map(() => 0),
      chunks: [],
    },
  ],
});

const pose: Pose = {
  eye: new Vector3(1, -20, 3),
  target: new Vector3(0, 0, 1),
  up: new Vector3(0, 0, 1),
  projection: "perspective",
  angleDeg: 42,
  heightM: 9,
  throughM: 0,
};

test("a view comes back by names although numbers and origin have changed", () => {
  const before = federation([100, 0, 0], ["a", "b", "c"]);
  const cells = new Map([["0/0", "faded" as const]]);
  const view = toView(before, pose, { cells, components: new Map([[2, "hidden" as const]]) }, [1]);
  const back = fromView(federation([90, 0, 0], ["x", "c", "b"]), view);
  expect(back.picked).toEqual([2]);
  expect([...back.visibility.components]).toEqual([[1, "hidden"]]);
  expect([...back.visibility.cells]).toEqual([["0/0", "faded"]]);
  expect(back.pose.eye.toArray()).toEqual([11, -20, 3]);
  expect(back.missing).toBe(0);
});

test("what is gone is counted, not forgotten in silence", () => {
  const view = toView(federation([0, 0, 0], ["a"]), pose, { cells: new Map(), components: new Map() }, [0]);
  expect(fromView(federation([0, 0, 0], ["b"]), view).missing).toBe(1);
});

test("a glide ends exactly where it should", () => {
  const to: Pose = { ...pose, eye: new Vector3(9, 9, 9), target: new Vector3(0, 0, 0), angleDeg: 60 };
  const end = between(pose, to, 1);
  expect(end.eye.distanceTo(to.eye)).toBeLessThan(1e-9);
  expect(end.target.distanceTo(to.target)).toBeLessThan(1e-9);
});

test("bearing is clockwise from north, tilt is above zero looking down", () => {
  const look = looking({ ...pose, eye: new Vector3(0, 0, 10), target: new Vector3(10, 0, 0) });
  expect(look.bearingDeg).toBeCloseTo(90);
  expect(look.tiltDeg).toBeCloseTo(45);
});

test("a project is named by what its files' names share", () => {
  expect(nameFrom([{ name: "QH-ARC.ifc" }, { name: "QH-STR.ifc" }])).toBe("QH");
  expect(nameFrom([{ name: "tower.ifc" }])).toBe("tower");
  expect(nameFrom([{ name: "a.ifc" }, { name: "b.ifc" }])).toBe("a");
});
