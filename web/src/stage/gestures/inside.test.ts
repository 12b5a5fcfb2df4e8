import { Box3, Ray, Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { Inside } from "./inside";

/** A room of 6 by 4 m, 3 m high. */
const ROOM = new Box3(new Vector3(0, 0, 0), new Vector3(6, 4, 3));
const WALL_M = 0.2;

/** How far one sees within a box, or up to the other point; from outside everything is clear. */
function within(box: Box3, roof = true) {
  return (from: Vector3, to: Vector3): number => {
    const length = from.distanceTo(to);
    if (!box.containsPoint(from)) return length;
    const way = to.clone().sub(from).normalize();
    // From behind the far side, a ray back meets that side first.
    const back = new Ray(to.clone().addScaledVector(way, 100), way.clone().negate());
    const out = back.intersectBox(box, new Vector3());
    if (!out || (!roof && out.z > box.max.z - 1e-6)) return length;
    return Math.min(length, from.distanceTo(out));
  };
}

const EYE = new Vector3(3, 2, 1.6);
const inside = new Inside(within(ROOM));

describe("going back in a room", () => {
  test("what is free is gone", () => {
    const way = new Vector3(-1, 0, 0);
    expect(inside.back(EYE, way)).toEqual({ way, kept: false });
  });

  test("it ends before the wall", () => {
    const { way, kept } = inside.back(EYE, new Vector3(-9, 0, 0));
    expect(kept).toBe(true);
    expect(way.toArray()).toEqual([-(3 - WALL_M), 0, 0]);
  });

  test.each([0.5, -0.5, 0.9, -0.9])(
    "up or down at an angle (%d) it ends at the wall, at the same height",
    (slope) => {
      const { way, kept } = inside.back(EYE, new Vector3(-9, 0, -9 * slope));
      expect(kept).toBe(true);
      expect(way.x).toBeCloseTo(-(3 - WALL_M));
      expect(way.z).toBe(0);
    },
  );

  test("where floor or ceiling would End meeting but no wall does, it goes on at the same height and is not kept", () => {
    for (const slope of [0.8, -0.8]) {
      const { way, kept } = inside.back(EYE, new Vector3(-2.4, 0, -2.4 * slope));
      expect(kept).toBe(false);
      expect(way.toArray()).toEqual([-2.4, 0, 0]);
    }
  });

  test("straight up it ends below the ceiling, straight down above the floor", () => {
    expect(inside.back(EYE, new Vector3(0, 0, 5)).way.z).toBeCloseTo(1.4 - WALL_M);
    expect(inside.back(EYE, new Vector3(0, 0, -5)).way.z).toBeCloseTo(-(1.6 - WALL_M));
  });

  test("without a roof nothing keeps the eye", () => {
    const yard = new Inside(within(ROOM, false));
    const way = new Vector3(-9, 0, 0);
    expect(yard.back(EYE, way)).toEqual({ way, kept: false });
  });

  test("who stands at the wall does not go any farther, or through it", () => {
    const near = new Vector3(0.1, 2, 1.6);
    const { way, kept } = inside.back(near, new Vector3(-1, 0, 0));
    expect(kept).toBe(true);
    expect(way.length()).toBe(0);
  });
});

describe("behind the wall", () => {
  const sight = new Vector3(0.8, 0, -0.6);

  test.each([
    [new Vector3(0.2, 2, 1.6), 0.2],
    [EYE, 3],
    [new Vector3(5.5, 2, 1.6), 5.5],
  ])("one is out behind the wall, however far behind the eye it stands (%o)", (eye, wallM) => {
    const { way, throughM } = inside.out(eye, sight, 0, 2.5);
    expect(way.x).toBeCloseTo(-(wallM + 2.5));
    expect(way.z).toBeCloseTo(0);
    // What is nearer than where one stood is looked through.
    expect(throughM).toBeCloseTo((wallM + 2.5) * sight.x);
  });

  test("going farther back from behind a wall that stood far behind does not bring one nearer", () => {
    const { throughM } = inside.out(new Vector3(5.9, 2, 1.6), new Vector3(1, 0, 0), 0, 6);
    expect(inside.behind(new Vector3(1, 0, 0), -1, throughM).throughM).toBeCloseTo(throughM);
  });

  test("one comes in again where one went out", () => {
    const out = inside.behind(sight, -2.5, 0);
    expect(out.throughM).toBeCloseTo(2.5 * sight.x);
    expect(out.way.z).toBeCloseTo(0);
    const back = inside.behind(sight, 9, out.throughM);
    expect(back.throughM).toBe(0);
    expect(back.way.clone().add(out.way).length()).toBeCloseTo(0);
  });

  test("it goes no farther than there is sense in", () => {
    const { throughM } = inside.behind(new Vector3(1, 0, 0), -50, 0);
    expect(throughM).toBe(8);
  });

  test("looking straight down one backs off upwards", () => {
    const { way, throughM } = inside.behind(new Vector3(0, 0, -1), -2, 0);
    expect(way.z).toBeCloseTo(2);
    expect(throughM).toBeCloseTo(2);
  });
});
