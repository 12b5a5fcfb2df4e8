import { Vector3 } from "three";
import { expect, test } from "vitest";
import type { Federation, View } from "../api/client";
import { ALL_SHOWN } from "../project/session";
import { forward, looking, type Pose, toShape, turned, withAngle } from "../stage/pose";
import { fromAddress, MOST_NAMED, toAddress } from "./address";
import { overStorey } from "./EyePanel";
import { bitSet, spokenSubject, wishOf } from "./subject";

const POSE: Pose = {
  eye: new Vector3(3, -20, 5),
  target: new Vector3(0, 0, 2),
  up: new Vector3(0, 0.1483, 0.9889),
  projection: "perspective",
  angleDeg: 54.4,
  heightM: 13.2,
  throughM: 0,
};
const FEDERATION = {
  rooms: [{ number: "0.01", name: "Hall", level: 0 }],
  levels: [
    { name: "Level 00", elevation_m: 0 },
    { name: "Level 01", elevation_m: 4 },
  ],
  models: [
    {
      id: "a",
      first: 0,
      stands: true,
      global_ids: ["x", "y"],
      labels: ["W-1", "W-2"],
      level: [0, 0],
      discipline: [0, 0],
    },
    { id: "b", first: 2, stands: false, global_ids: ["z"], labels: ["S-1"], level: [1], discipline: [0] },
  ],
} as unknown as Federation;

const HERE: View = {
  pose: toShape(POSE),
  origin_m: [412_300, 88_650, 0],
  cells: [
    { level: "Level 02/A, new", discipline: "ARC", state: "hidden" },
    { level: null, discipline: "AIR", state: "faded" },
  ],
  shown: [],
  hidden: [{ model: "a", global_id: "x" }],
  faded: [{ model: "b", global_id: "z$1" }],
  picked: [],
  alternatives: {},
};

test("an address carries the view in project coordinates, and what is hidden or faded", () => {
  const back = fromAddress(toAddress(HERE), FEDERATION);
  expect(back?.view.origin_m).toEqual([0, 0, 0]);
  expect(back?.view.pose.eye_m).toEqual([412_303, 88_630, 5]);
  expect(back?.view.pose.target_m).toEqual([412_300, 88_650, 2]);
  expect([back?.view.pose.angle_deg, back?.view.pose.height_m]).toEqual([54.4, 13.2]);
  expect(back?.view.cells).toEqual(HERE.cells);
  expect(back?.view.hidden).toEqual(HERE.hidden);
  expect(back?.view.faded).toEqual(HERE.faded);
  expect(back?.unnamed).toBe(0);
});

test("an address that cannot name all that differs says how many there are", () => {
  const hidden = Array.from({ length: MOST_NAMED + 1 }, (_, i) => ({ model: "a", global_id: String(i) }));
  const back = fromAddress(toAddress({ ...HERE, hidden }), FEDERATION);
  expect(back?.unnamed).toBe(MOST_NAMED + 2);
  expect(back?.view.hidden).toEqual([]);
  expect(back?.view.cells).toEqual(HERE.cells);
});

test("an address that was cut short still opens its view", () => {
  const whole = toAddress(HERE);
  for (let end = whole.indexOf("&"); end < whole.length; end++)
    expect(fromAddress(whole.slice(0, end), FEDERATION)?.view.pose.angle_deg).toBe(54.4);
});

test.each([
  "",
  "#",
  "#view=",
  "#view=e1,2,3",
  "#view=e0,0,0,0,0,0,0,0,1,60,10",
  "#view=e0,0,0,0,0,5,0,0,1,60,10",
  "#view=e1,2,x",
])("an address that carries no view gives none: %s", (hash) =>
  expect(fromAddress(hash, FEDERATION)).toBeNull(),
);

test("what is fitted is told to the server and on the Trail", () => {
  expect(wishOf(FEDERATION, ALL_SHOWN, { kind: "all" })).toEqual({});
  expect(wishOf(FEDERATION, ALL_SHOWN, { kind: "room", room: 0 })).toEqual({ room: 0 });
  expect(wishOf(FEDERATION, ALL_SHOWN, { kind: "components", components: [1, 99] })).toEqual({
    components: [{ model: "a", global_id: "y" }],
  });
  expect(spokenSubject(FEDERATION, { kind: "room", room: 0 })).toBe("fit: 0.01 Hall");
  expect(spokenSubject(FEDERATION, { kind: "storey", level: 1 })).toBe("fit: Level 01");
  expect(spokenSubject(FEDERATION, { kind: "components", components: [0, 1] })).toBe("fit: W-1 and 1 more");
});

test("what is visible goes as bits, the first component the lowest", () => {
  const hidden = { cells: new Map(), components: new Map([[0, "hidden" as const]]) };
  expect(wishOf(FEDERATION, hidden, { kind: "visible" })).toEqual({ among: btoa("\u0002") });
  expect(bitSet([true, false, false, false, false, false, false, false, true])).toBe(btoa("\u0001\u0001"));
});

test("turning about a point keeps its distance and looks along the bearing and tilt", () => {
  const about = new Vector3(1, 2, 3);
  const next = turned(POSE, about, 123, 30);
  const { bearingDeg, tiltDeg } = looking(next);
  expect(bearingDeg).toBeCloseTo(123, 9);
  expect(tiltDeg).toBeCloseTo(30, 9);
  expect(next.eye.distanceTo(about)).toBeCloseTo(POSE.eye.distanceTo(about), 9);
  expect(next.eye.distanceTo(next.target)).toBeCloseTo(POSE.eye.distanceTo(POSE.target), 9);
});

test("straight down and straight up can be looked along", () => {
  for (const tilt of [90, -90]) {
    const next = turned(POSE, POSE.target, 40, tilt);
    expect(forward(next).z).toBeCloseTo(-Math.sign(tilt), 9);
    expect(looking(next).bearingDeg).toBeCloseTo(40, 6);
  }
});

test("one lens handle keeps the eye, the other the subject", () => {
  const wide = withAngle(POSE, 90, "eye");
  expect(wide.eye.toArray()).toEqual(POSE.eye.toArray());
  const near = withAngle(POSE, 90, "subject");
  const width = (p: Pose) => 2 * p.eye.distanceTo(p.target) * Math.tan((p.angleDeg * Math.PI) / 360);
  expect(width(near)).toBeCloseTo(width(POSE), 9);
  expect(near.heightM).toBe(POSE.heightM);
});

test("a height is told from the storey below it", () => {
  expect(overStorey(FEDERATION, 5.6)).toEqual({ name: "Level 01", overM: 5.6 - 4, floorM: 4 });
  expect(overStorey(FEDERATION, -1).overM).toBe(-1);
});
