import { Vector2, Vector3 } from "three";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import type { Pose } from "../pose";
import { Flying } from "./flying";
import { HeldKeys } from "./heldKeys";
import { Heading } from "./mover";
import { groundOf, level } from "./testGround";
import { TestKeys } from "./testKeys";
import { eyesOf, Walking } from "./walking";

const HEIGHT_M = 1.8;

let page: TestKeys;
let keys: HeldKeys;
let said: string[];

beforeEach(() => {
  page = new TestKeys();
  keys = new HeldKeys(() => undefined);
  said = [];
});
afterEach(() => {
  keys.dispose();
  vi.unstubAllGlobals();
});

function facing(bearingDeg: number, eye: Vector3): Pose {
  const pose: Pose = {
    eye: new Vector3(),
    target: new Vector3(),
    up: new Vector3(0, 0, 1),
    projection: "perspective",
    angleDeg: 60,
    heightM: 3,
    throughM: 0,
  };
  new Heading(bearingDeg, 0).put(pose, eye);
  return pose;
}

/** Somebody on foot on a level floor of so many cells each way, with a column of cells barred. */
function onFoot(bearingDeg: number, barred = -1) {
  const ground = groundOf(level(120, barred));
  const at = new Vector3(2, 2, 1);
  const floor = ground.under(at, 2, 0);
  if (!floor) throw new Error("no floor");
  const feet = ground.stage(new Vector3(at.x, at.y, ground.height(floor)));
  const pose = facing(bearingDeg, feet.clone().setZ(feet.z + eyesOf(HEIGHT_M)));
  const walking = new Walking(
    ground,
    floor,
    at,
    pose,
    HEIGHT_M,
    keys,
    {
      speed: (speed) => said.push(`${speed.toFixed(2)} m/s`),
      stopped: (stop) => said.push(stop ? "stopped" : "on"),
      figure: (figure) => figure && said.push("figure"),
      clear: (from, to) => from.distanceTo(to),
    },
    1.4,
  );
  return { walking, pose, feet };
}

/** Frames of so many milliseconds until nothing is asked for any more and all is at rest. */
function frames(mover: Walking | Flying, pose: Pose, everyMs: number): void {
  let last = mover.askedAt ?? 0;
  for (let k = 0; k < 10_000; k++) {
    const now = last + everyMs;
    mover.tick(last, now, pose);
    last = now;
    if (!mover.busy) return;
  }
  throw new Error("never at rest");
}

describe("on foot", () => {
  test("a press goes as far as its time, at sixty frames a second and at less than two", () => {
    const ends = [1000 / 60, 90, 730].map((everyMs) => {
      const { walking, pose, feet } = onFoot(0);
      page.hold("KeyW", 5000, 6000);
      frames(walking, pose, everyMs);
      expect(walking.feet.distanceTo(feet)).toBeCloseTo(1.4, 1);
      return walking.feet;
    });
    for (const end of ends) expect(end.distanceTo(ends[0] ?? end)).toBeLessThan(0.03);
  });

  test("turning while walking goes in a curve, however few frames there are", () => {
    const ends = [1000 / 60, 730].map((everyMs) => {
      const { walking, pose } = onFoot(0);
      page.send("keydown", "KeyW", 1000);
      page.hold("ArrowRight", 1000, 2000);
      page.send("keyup", "KeyW", 2000);
      frames(walking, pose, everyMs);
      expect(walking.heading.bearingDeg).toBeCloseTo(90, 0);
      return walking.feet;
    });
    const [fine, coarse] = ends;
    expect(coarse?.distanceTo(fine ?? coarse)).toBeLessThan(0.05);
    // A quarter of a circle: as far aside as ahead.
    const { feet } = onFoot(0);
    const way = fine?.clone().sub(feet) ?? new Vector3();
    expect(way.x).toBeGreaterThan(0.5);
    expect(way.y).toBeGreaterThan(0.5);
  });

  test("sideways is to the right, and running is faster", () => {
    const { walking, pose, feet } = onFoot(90);
    page.hold("KeyD", 0, 500);
    frames(walking, pose, 16);
    const aside = walking.feet.clone().sub(feet);
    expect(aside.y).toBeLessThan(-0.6);
    expect(Math.abs(aside.x)).toBeLessThan(0.01);
    const ran = onFoot(90);
    page.send("keydown", "KeyW", 0, { shiftKey: true });
    page.send("keyup", "KeyW", 500, { shiftKey: true });
    frames(ran.walking, ran.pose, 16);
    expect(ran.walking.feet.distanceTo(ran.feet)).toBeCloseTo(1.4 * 2.5 * 0.5, 1);
  });

  test("what bars the way is told once, and again gone", () => {
    const { walking, pose, feet } = onFoot(90, 40);
    page.send("keydown", "KeyW", 0);
    for (let k = 0; k < 300; k++) walking.tick(k * 16, k * 16 + 16, pose);
    expect(said).toEqual(["stopped"]);
    expect(walking.feet.y).toBeCloseTo(feet.y, 3);
    page.send("keyup", "KeyW", 4800);
    page.hold("KeyS", 4800, 5100);
    for (let k = 300; k < 400; k++) walking.tick(k * 16, k * 16 + 16, pose);
    expect(said).toEqual(["stopped", "on"]);
  });

  test("the wheel changes the speed between a slowest and a quickest, and does not move", () => {
    const { walking, pose, feet } = onFoot(0);
    walking.wheel(100);
    walking.wheel(-100);
    expect(said).toEqual(["6.00 m/s", "0.30 m/s"]);
    expect(walking.tick(0, 0, pose)).toBe(true); // the first picture
    expect(walking.tick(0, 16, pose)).toBe(false);
    expect(walking.feet.distanceTo(feet)).toBe(0);
  });

  test("a thumb half way goes half as fast", () => {
    const { walking, pose, feet } = onFoot(0);
    walking.push({ x: 0, y: 0.5 });
    walking.tick(0, 1000, pose);
    walking.push(null);
    frames(walking, pose, 16);
    expect(walking.feet.distanceTo(feet)).toBeCloseTo(0.7, 1);
  });

  test("from behind, the eye is behind and above, and the figure is shown", () => {
    const { walking, pose } = onFoot(0);
    walking.behind = true;
    walking.refresh();
    expect(walking.tick(0, 0, pose)).toBe(true);
    expect(said).toContain("figure");
    const own = new Vector2(pose.eye.x, pose.eye.y).sub(new Vector2(walking.feet.x, walking.feet.y));
    expect(own.y).toBeLessThan(-2);
    expect(pose.eye.z).toBeGreaterThan(walking.feet.z + eyesOf(HEIGHT_M));
  });
});

describe("flying", () => {
  const news = (clearM: number) => ({
    speed: () => undefined,
    clear: (from: Vector3, to: Vector3) => Math.min(from.distanceTo(to), clearM),
    stopped: () => said.push("stopped"),
  });

  test("goes where one looks, up by its key, and in proportion to what is around", () => {
    const far = [20, 4].map((clearM) => {
      const pose = facing(90, new Vector3(0, 0, 10));
      const flying = new Flying(pose, keys, news(clearM));
      page.hold("KeyW", 0, 1000);
      frames(flying, pose, 16);
      return pose.eye.x;
    });
    expect(far[0]).toBeCloseTo(10, 0);
    expect(far[1]).toBeCloseTo(2, 0);
    const pose = facing(90, new Vector3(0, 0, 10));
    const flying = new Flying(pose, keys, news(20));
    page.hold("PageUp", 0, 500);
    frames(flying, pose, 16);
    expect(pose.eye.z).toBeGreaterThan(14);
    expect(pose.eye.x).toBeCloseTo(0);
  });

  test("stops at surfaces only if chosen", () => {
    for (const stops of [true, false]) {
      const pose = facing(90, new Vector3(0, 0, 10));
      const flying = new Flying(pose, keys, {
        ...news(0),
        clear: (from: Vector3, to: Vector3) => (to.x > 3 ? Math.max(0, 3 - from.x) : from.distanceTo(to)),
      });
      flying.stops = stops;
      flying.wheel(20);
      page.hold("KeyW", 0, 3000);
      frames(flying, pose, 16);
      expect(pose.eye.x > 3).toBe(!stops);
    }
    expect(said).toContain("stopped");
  });
});
