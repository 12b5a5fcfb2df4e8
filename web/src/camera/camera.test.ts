import { Vector3 } from "three";
import { expect, test } from "vitest";
import type { Federation } from "../api/client";
import { ALL_SHOWN } from "../project/session";
import { forward, looking, type Pose, turned, withAngle } from "../stage/pose";
import { fromAddress, toAddress } from "./address";
import { overStorey } from "./EyePanel";
import { bitSet, spokenSubject, wishOf } from "./subject";

const POSE: Pose = {
  eye: new Vector3(3, -20, 5),
  target: new Vector3(0, 0, 2),
  up: new Vector3(0, 0.1483, 0.9889),
  projection: "perspective",
  angleDeg: 54.4,
  heightM: 13.2,
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

test("an address carries the view in project coordinates, whatever the origin", () => {
  const address = toAddress(POSE, [412_300, 88_650, 0]);
  const back = fromAddress(address, [412_290, 88_650, 1]);
  expect(back?.eye.toArray().map((v) => Number(v.toFixed(3)))).toEqual([13, -20, 4]);
  expect(back?.angleDeg).toBe(54.4);
  expect(back?.heightM).toBe(13.2);
  expect(back?.projection).toBe("perspective");
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
  expect(fromAddress(hash, [0, 0, 0])).toBeNull(),
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
