import { describe, expect, test } from "vitest";
import { type Direction, directionAt, kindOf, nearestKind, plumb } from "./directions";

/** The sides at three heights, and straight down and up. */
const DIRECTIONS: Direction[] = [
  ...[0, 45, -45].flatMap((tilt_deg) =>
    [0, 90, 180, 270].map((bearing_deg) => ({ name: `${bearing_deg}/${tilt_deg}`, bearing_deg, tilt_deg })),
  ),
  { name: "down", bearing_deg: 0, tilt_deg: 90 },
  { name: "up", bearing_deg: 0, tilt_deg: -90 },
] as Direction[];

describe("directions of the ring", () => {
  test.each([
    [10, "0/0"],
    [50, "90/0"],
    [355, "0/0"],
    [-80, "270/0"],
    [224, "180/0"],
  ])("the nearest to %d is found over north as well", (bearing, name) => {
    expect(directionAt(DIRECTIONS, bearing, "level")).toMatchObject({ name });
  });

  test("each height has its own", () => {
    expect(directionAt(DIRECTIONS, 91, "above")).toMatchObject({ name: "90/45" });
    expect(directionAt(DIRECTIONS, 91, "below")).toMatchObject({ name: "90/-45" });
    expect(directionAt([], 91, "below")).toBeNull();
  });

  test("a tilt belongs to the height that it is nearest to", () => {
    expect([-90, -21, -19, 0, 19, 21, 90].map(nearestKind)).toEqual([
      "below",
      "below",
      "level",
      "level",
      "level",
      "above",
      "above",
    ]);
    expect(DIRECTIONS.slice(0, 12).map(kindOf)).toEqual(
      ["level", "above", "below"].flatMap((kind) => [kind, kind, kind, kind]),
    );
  });

  test("straight down and up are apart from the ring", () => {
    expect(plumb(DIRECTIONS, true)).toMatchObject({ name: "down" });
    expect(plumb(DIRECTIONS, false)).toMatchObject({ name: "up" });
    expect(plumb([], true)).toBeNull();
  });
});
