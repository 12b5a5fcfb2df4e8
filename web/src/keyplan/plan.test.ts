import { expect, test } from "vitest";
import { type Direction, directionAt, nearestKind, plumb } from "../open/plan/directions";
import { type KeyPlan, onPlan, roomAt, Sheet, storeyOf, wholePlan } from "../open/plan/plan";
import { tiltPlace } from "./TiltScale";

const room = (index: number, x: number, hole = false): KeyPlan["rooms"][number] => ({
  index,
  number: `0.0${index}`,
  name: `Room ${index}`,
  outlines: [
    [
      [x, 0],
      [x + 4, 0],
      [x + 4, 4],
      [x, 4],
      [x, 0],
    ],
    ...(hole
      ? [
          [
            [x + 1, 1],
            [x + 3, 1],
            [x + 3, 3],
            [x + 1, 3],
            [x + 1, 1],
          ],
        ]
      : []),
  ],
  label: [x + 2, 2],
});
const PLAN: KeyPlan = {
  storey: "Level 00",
  elevation_m: 0,
  cut_m: 1.2,
  solid: [],
  thin: [],
  swings: [],
  flights: [],
  axes: [],
  rooms: [room(1, 0), room(2, 4, true)],
};

test("a point is in the room whose outline it lies in, and not in its hole", () => {
  expect(roomAt(PLAN, { x: 1, y: 1 })?.index).toBe(1);
  expect(roomAt(PLAN, { x: 4.5, y: 0.5 })?.index).toBe(2);
  expect(roomAt(PLAN, { x: 6, y: 2 })).toBeNull();
  expect(roomAt(PLAN, { x: 20, y: 2 })).toBeNull();
});

test("who stands at the glass or in a doorway is in the nearest room", () => {
  expect(roomAt(PLAN, { x: 1, y: -0.1 })?.index).toBe(1);
  expect(roomAt(PLAN, { x: -0.39, y: 2 })?.index).toBe(1);
  expect(roomAt(PLAN, { x: 1, y: -0.5 })).toBeNull();
});

test.each([0, 17, -33, 180])("the sheet with bearing %d up goes there and back", (up) => {
  const sheet = new Sheet(up);
  const back = sheet.from(sheet.onto({ x: 3, y: -7 }));
  expect(back.x).toBeCloseTo(3, 12);
  expect(back.y).toBeCloseTo(-7, 12);
  const turn = (up * Math.PI) / 180;
  const north = sheet.onto({ x: Math.sin(turn), y: Math.cos(turn) });
  expect(north.x).toBeCloseTo(0, 12);
  expect(north.y).toBeCloseTo(-1, 12);
});

test("the whole plan fits the circle and touches it", () => {
  const view = wholePlan(PLAN, new Sheet(0), 90);
  expect([view.x, view.y]).toEqual([4, -2]);
  expect(Math.hypot(4, 2) * view.pxPerM).toBeCloseTo(90, 9);
});

test("near the plan counts as on it", () => {
  expect(onPlan(PLAN, { x: -2, y: 2 }, 3)).toBe(true);
  expect(onPlan(PLAN, { x: -4, y: 2 }, 3)).toBe(false);
});

const DIRECTIONS: Direction[] = [
  { name: "front", bearing_deg: 0, tilt_deg: 0 },
  { name: "left", bearing_deg: 90, tilt_deg: 0 },
  { name: "front, from above", bearing_deg: 0, tilt_deg: 45 },
  { name: "front left, from above", bearing_deg: 45, tilt_deg: 35.264 },
  { name: "front, from below", bearing_deg: 0, tilt_deg: -45 },
  { name: "above", bearing_deg: 0, tilt_deg: 90 },
  { name: "below", bearing_deg: 0, tilt_deg: -90 },
];

test("the nearest direction of a kind is taken, round the north too", () => {
  expect(directionAt(DIRECTIONS, 350, "level")?.name).toBe("front");
  expect(directionAt(DIRECTIONS, 400, "above")?.name).toBe("front left, from above");
  expect(directionAt(DIRECTIONS, 80, "level")?.name).toBe("left");
  expect(directionAt([], 0, "level")).toBeNull();
});

test("a tilt is nearest to level, above or below", () => {
  expect([0, 19, 21, 88, -19, -45].map(nearestKind)).toEqual([
    "level",
    "level",
    "above",
    "above",
    "level",
    "below",
  ]);
  expect(plumb(DIRECTIONS, true)?.name).toBe("above");
  expect(plumb(DIRECTIONS, false)?.name).toBe("below");
});

test("the tilt scale has plan at its top and level in its middle", () => {
  expect(tiltPlace(90, 208)).toBe(12);
  expect(tiltPlace(0, 208)).toBe(104);
  expect(tiltPlace(-90, 208)).toBe(196);
});

test("seen from outside the plan of the storey with most rooms is shown, inside that of the eye", () => {
  const levels = [0, 4, 8].map((elevation_m) => ({ name: "", elevation_m, begins_m: elevation_m }));
  const room = (level: number) => ({ model: "m", global_id: "g", number: "", name: "", level });
  const house = {
    levels,
    rooms: [room(0), room(1), room(1), room(1), room(2), room(2)],
    origin_m: [100, 0, 0],
    bounds_m: [
      [90, -10, -1],
      [110, 10, 9],
    ],
  };
  expect(storeyOf(house, { x: 0, y: -30, z: 20 }).level).toBe(1);
  expect(storeyOf(house, { x: 0, y: 0, z: 1.6 }).level).toBe(0);
  expect(storeyOf(house, { x: 0, y: 0, z: 10 }).level).toBe(2);
  expect(storeyOf({ ...house, rooms: [] }, { x: 0, y: 0, z: 90 }).level).toBe(0);
});
