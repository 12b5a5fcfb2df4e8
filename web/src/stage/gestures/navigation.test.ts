import { Box3, Vector2, Vector3 } from "three";
import { expect, test, vi } from "vitest";
import { StageCamera } from "../camera";
import type { Press, WheelTurn } from "../gesture";
import { forward, type Pose, withAngle } from "../pose";
import type { NavigationHost } from "./host";
import { Navigation } from "./navigation";

const WIDTH = 800;
const HEIGHT = 500;

/** A view of a floor at z = 0 to point at, moved by presses and turns of the wheel. */
function setUp(projection: Pose["projection"] = "perspective", turns = true) {
  const camera = new StageCamera();
  camera.setAspect(WIDTH / HEIGHT);
  const said: string[] = [];
  const bounds = new Box3(new Vector3(-60, -60, -1), new Vector3(60, 60, 5));
  const pose: Pose = {
    eye: new Vector3(0, -30, 20),
    target: new Vector3(0, 0, 0),
    up: new Vector3(0, 0.55, 0.83).normalize(),
    projection,
    angleDeg: 50,
    heightM: 30,
    throughM: 0,
  };
  const sync = () => camera.place(navigation.pose, bounds);
  const host: NavigationHost = {
    size: () => ({ width: WIDTH, height: HEIGHT }),
    turns,
    toolDrag: () => null,
    pointAt: (at) => {
      sync();
      const ray = camera.ray(at);
      const reach = -ray.origin.z / ray.direction.z;
      return reach > 0 && reach < 200 ? ray.at(reach, new Vector3()) : null;
    },
    rayAt: (at) => {
      sync();
      const { origin, direction } = camera.ray(at);
      return { origin: origin.clone(), direction: direction.clone() };
    },
    fallbackPivot: () => new Vector3(),
    pickedCentre: () => null,
    moved: () => undefined,
    pivotShown: (at) => said.push(at ? "pivot" : "no pivot"),
    clicked: (_, add) => said.push(add ? "add" : "click"),
    asked: () => said.push("asked"),
    entered: () => said.push("entered"),
    hovered: () => undefined,
    stopped: () => said.push("stopped"),
    clear: (from, to) => from.distanceTo(to),
    kept: () => said.push("kept"),
    moverLeft: () => said.push("left"),
  };
  const navigation: Navigation = new Navigation(pose, host);
  const at = (x: number, y: number) => new Vector2((x / WIDTH) * 2 - 1, 1 - (y / HEIGHT) * 2);
  const press = (x: number, y: number, more: Partial<Press> = {}): Press => ({
    at: at(x, y),
    pointer: 1,
    kind: "mouse",
    button: 0,
    shift: false,
    adds: false,
    through: false,
    ...more,
  });
  const down = (x: number, y: number, more: Partial<Press> = {}) => navigation.down(press(x, y, more));
  const move = (x: number, y: number, more: Partial<Press> = {}) => navigation.move(press(x, y, more));
  const up = (x: number, y: number, more: Partial<Press> = {}) => navigation.up(press(x, y, more), false);
  const wheel = (x: number, y: number, alongPx: number, more: Partial<WheelTurn> = {}) =>
    navigation.wheel({
      at: at(x, y),
      acrossPx: 0,
      alongPx,
      pace: "plain",
      through: false,
      pinched: false,
      ...more,
    });
  const settle = (from = 0) => {
    for (let k = 1; k < 200; k++) navigation.tick(from + k * 16);
  };
  const seen = (point: Vector3) => {
    sync();
    const p = camera.project(point);
    return [((p.x + 1) / 2) * WIDTH, ((1 - p.y) / 2) * HEIGHT] as const;
  };
  const drag = (
    from: readonly [number, number],
    to: readonly [number, number],
    more: Partial<Press> = {},
  ) => {
    down(...from, more);
    move(...to, more);
    up(...to, more);
  };
  return { navigation, host, down, move, up, wheel, settle, drag, at, seen, said };
}

test("turning keeps the pivot in its place and the horizon level", () => {
  const { navigation, host, down, move, up, at, seen, said } = setUp();
  const pivot = host.pointAt(at(500, 300));
  if (!pivot) throw new Error("no floor there");
  down(500, 300);
  move(560, 300);
  move(640, 260);
  const [x, y] = seen(pivot);
  expect(x).toBeCloseTo(500, 3);
  expect(y).toBeCloseTo(300, 3);
  const right = new Vector3().crossVectors(forward(navigation.pose), navigation.pose.up);
  expect(right.z).toBeCloseTo(0, 9);
  up(640, 260);
  expect(said).toEqual(["pivot", "no pivot"]);
});

test("no drag tips the building over", () => {
  const { navigation, down, move } = setUp();
  down(400, 250);
  for (let y = 250; y > -6000; y -= 250) move(400, y);
  expect(navigation.pose.up.z).toBeGreaterThanOrEqual(0);
  expect(Math.abs(forward(navigation.pose).z)).toBeLessThan(1);
});

test("a press without a drag is a click, with Shift it adds", () => {
  const { down, move, up, said } = setUp();
  down(400, 300);
  move(402, 301);
  up(402, 301);
  down(400, 300);
  up(400, 300, { adds: true });
  expect(said.filter((s) => s !== "no pivot")).toEqual(["click", "add"]);
});

for (const projection of ["perspective", "parallel"] as const) {
  test(`panning takes the point along with the cursor, ${projection}`, () => {
    const { host, down, move, at, seen } = setUp(projection);
    const point = host.pointAt(at(300, 280));
    if (!point) throw new Error("no floor there");
    down(300, 280, { button: 2 });
    move(380, 320);
    move(450, 390);
    const [x, y] = seen(point);
    expect(x).toBeCloseTo(450, 3);
    expect(y).toBeCloseTo(390, 3);
  });

  test(`the wheel keeps the point under the cursor, ${projection}`, () => {
    const { navigation, host, wheel, settle, at, seen } = setUp(projection);
    const point = host.pointAt(at(520, 200));
    if (!point) throw new Error("no floor there");
    const before =
      projection === "parallel" ? navigation.pose.heightM : navigation.pose.eye.distanceTo(point);
    wheel(520, 200, -100);
    settle();
    const after = projection === "parallel" ? navigation.pose.heightM : navigation.pose.eye.distanceTo(point);
    expect(after / before).toBeCloseTo(0.82, 2);
    const [x, y] = seen(point);
    expect(x).toBeCloseTo(520, 3);
    expect(y).toBeCloseTo(200, 3);
  });
}

test("the wheel stops before the surface and says so", () => {
  const { navigation, host, wheel, settle, at, said } = setUp();
  const point = host.pointAt(at(400, 250));
  if (!point) throw new Error("no floor there");
  for (let i = 0; i < 40; i++) {
    wheel(400, 250, -400);
    settle(i * 4000);
  }
  expect(navigation.pose.eye.distanceTo(point)).toBeCloseTo(0.05, 3);
  expect(said).toContain("stopped");
});

test("a glide ends exactly at its pose and a drag ends a glide", () => {
  const { navigation, down } = setUp();
  const to: Pose = {
    ...navigation.pose,
    eye: new Vector3(5, -10, 9),
    target: new Vector3(1, 2, 3),
    up: new Vector3(0, 0, 1),
  };
  navigation.go(to);
  navigation.tick(performance.now() + 10_000);
  expect(navigation.pose.eye.toArray()).toEqual([5, -10, 9]);
  expect(navigation.busy).toBe(false);
  navigation.go({ ...to, eye: new Vector3(50, 50, 50) });
  expect(navigation.busy).toBe(true);
  down(10, 10);
  expect(navigation.busy).toBe(false);
});

test("tumbling goes over the top and keeps the pivot's distance; upright comes back", () => {
  const { navigation, drag } = setUp();
  navigation.habits = { ...navigation.habits, tumble: true };
  const before = navigation.pose.eye.length();
  drag([400, 250], [400, 480]);
  drag([400, 250], [400, 480]);
  expect(navigation.pose.eye.length()).toBeCloseTo(before, 6);
  expect(navigation.pose.up.z).toBeLessThan(0.2);
  navigation.upright();
  const f = forward(navigation.pose);
  expect(new Vector3().crossVectors(f, navigation.pose.up).z).toBeCloseTo(0, 9);
  expect(navigation.pose.up.z).toBeGreaterThan(0);
});

test("leaning turns what is up about the line of sight and nothing else", () => {
  const { navigation } = setUp();
  const { eye, target, up } = { ...navigation.pose, up: navigation.pose.up.clone() };
  navigation.roll(30);
  expect([navigation.pose.eye, navigation.pose.target]).toEqual([eye, target]);
  expect((navigation.pose.up.angleTo(up) * 180) / Math.PI).toBeCloseTo(30, 2);
});

test("the zoom handle goes as far as its pixels, however they are cut", () => {
  const one = setUp();
  const other = setUp();
  one.navigation.zoomByHandle(60);
  for (let i = 0; i < 60; i++) other.navigation.zoomByHandle(1);
  expect(one.navigation.pose.eye.distanceTo(other.navigation.pose.eye)).toBeLessThan(1e-6);
  expect(one.navigation.pose.eye.length()).toBeLessThan(setUp().navigation.pose.eye.length());
});

test("zooming out stays in the room unless it is asked to leave", () => {
  const { navigation, host, said } = setUp();
  navigation.pose.eye.set(0, 0, 1.6);
  navigation.pose.target.set(0, 5, 0);
  // A room: floor and ceiling near, and a wall two metres behind.
  host.clear = (from, to) => {
    const length = from.distanceTo(to);
    const behind = to.y < -2 ? (length * (from.y + 2)) / (from.y - to.y) : length;
    return Math.min(length, behind, Math.abs(to.x - from.x) + Math.abs(to.y - from.y) < 1e-9 ? 1.5 : length);
  };
  navigation.zoomByHandle(-200);
  const atTheWall = navigation.pose.eye.clone();
  expect(atTheWall.y).toBeCloseTo(-1.8, 1);
  expect(said).toContain("kept");
  navigation.zoomByHandle(-200);
  expect(navigation.pose.eye.distanceTo(atTheWall)).toBeLessThan(1e-6);
  expect(navigation.pose.throughM).toBe(0);
  // Behind the wall, where one asked to be, one goes on, and comes in again where one went out.
  const { pose } = navigation;
  const first = navigation.inside.behind(forward(pose), -1, 0);
  pose.eye.add(first.way);
  pose.target.add(first.way);
  pose.throughM = first.throughM;
  navigation.zoomByHandle(-20);
  expect(pose.eye.y).toBeLessThan(-2.5);
  // What lies before the place at the wall is looked through, and no more.
  expect(pose.throughM).toBeCloseTo(atTheWall.clone().sub(pose.eye).dot(forward(pose)), 6);
  for (let i = 0; i < 50; i++) navigation.zoomByHandle(-200);
  expect(pose.throughM).toBeLessThanOrEqual(8);
  for (let i = 0; i < 200 && pose.throughM > 0; i++) navigation.zoomByHandle(20);
  expect(pose.throughM).toBe(0);
  expect(pose.eye.distanceTo(atTheWall)).toBeLessThan(0.01);
  navigation.habits = { ...navigation.habits, keepInside: false };
  navigation.zoomByHandle(-200);
  expect(navigation.pose.eye.y).toBeLessThan(-2);
});

test("a lens that lets the eye back off does not take it out of the room", () => {
  const { navigation, host, said } = setUp();
  navigation.pose.eye.set(0, 0, 1.6);
  navigation.pose.target.set(0, 5, 1.6);
  host.clear = (from, to) => {
    const length = from.distanceTo(to);
    if (Math.abs(to.z - from.z) > 1) return 1.5;
    return to.y < -2 ? Math.min(length, from.y + 2) : length;
  };
  const narrow = withAngle(navigation.pose, 20, "subject");
  expect(narrow.eye.y).toBeLessThan(-2);
  const kept = navigation.keptInside(narrow);
  expect(kept.eye.y).toBeCloseTo(-1.8, 6);
  expect(kept.angleDeg).toBe(20);
  expect(said).toContain("kept");
  const wide = withAngle(navigation.pose, 90, "subject");
  expect(navigation.keptInside(wide)).toBe(wide);
});

test("counted from another origin, the same is seen from the same place", () => {
  const { navigation, said } = setUp();
  navigation.pin(new Vector3(1, 2, 3));
  navigation.go({ ...navigation.pose, eye: new Vector3(10, 0, 5), target: new Vector3(0, 0, 2) });
  navigation.rebase(new Vector3(100, -20, 0));
  expect(navigation.pose.eye.toArray()).toEqual([110, -20, 5]);
  expect(navigation.pose.target.toArray()).toEqual([100, -20, 2]);
  expect(navigation.pinnedAt?.toArray()).toEqual([101, -18, 3]);
  expect(navigation.busy).toBe(false);
  expect(said.at(-1)).toBe("pivot");
});

test("a locked view does not move, and a drag in it picks nothing", () => {
  const { navigation, drag, said } = setUp();
  const before = navigation.pose.eye.clone();
  navigation.locked = true;
  drag([400, 250], [500, 300]);
  navigation.roll(10);
  navigation.zoomByHandle(50);
  expect(navigation.pose.eye).toEqual(before);
  expect(said).not.toContain("click");
});

test("a tool takes drags with the left button while everything else moves as always", () => {
  const { navigation, host, drag } = setUp();
  const before = navigation.pose.eye.clone();
  const told: string[] = [];
  host.toolDrag = () => ({
    begin: () => told.push("begun"),
    move: (from, to) => told.push(`${to.x > from.x ? "right" : "left"}`),
    end: (broken) => told.push(broken ? "broken" : "ended"),
  });
  drag([300, 200], [500, 300]);
  expect(told).toEqual(["begun", "right", "ended"]);
  expect(navigation.pose.eye).toEqual(before);
  drag([300, 200], [500, 300], { button: 2 });
  expect(told).toHaveLength(3);
  expect(navigation.pose.eye.equals(before)).toBe(false);
});

test("with Shift the wheel is fine, with the control key fast", () => {
  const gone = (pace: WheelTurn["pace"]) => {
    const { navigation, wheel, settle } = setUp();
    const before = navigation.pose.eye.clone();
    wheel(400, 250, -100, { pace });
    settle();
    return navigation.pose.eye.distanceTo(before);
  };
  expect(gone("fine")).toBeGreaterThan(0);
  expect(gone("fine")).toBeLessThan(0.3 * gone("plain"));
  expect(gone("fast")).toBeGreaterThan(2 * gone("plain"));
});

test("turning and panning stay in the room unless they are asked to leave", () => {
  // A room: floor and ceiling near, and a wall two metres to the right.
  const room = () => {
    const made = setUp();
    made.navigation.pose.eye.set(0, 0, 1.6);
    made.navigation.pose.target.set(0, 5, 1);
    made.host.clear = (from, to) => {
      const length = from.distanceTo(to);
      if (Math.abs(to.z - from.z) > 1 && Math.hypot(to.x - from.x, to.y - from.y) < 1e-9) return 1.5;
      return to.x > 2 ? Math.min(length, (length * (2 - from.x)) / (to.x - from.x)) : length;
    };
    return made;
  };
  for (const [button, x] of [
    [0, 500],
    [2, 100],
  ] as const) {
    const { navigation, drag, said } = room();
    drag([700, 400], [x, 400], { button });
    expect(navigation.pose.eye.x).toBeLessThan(1.9);
    expect(said).toContain("kept");
    const out = room();
    out.drag([700, 400], [x, 400], { button, through: true });
    expect(out.navigation.pose.eye.x).toBeGreaterThan(2);
    expect(out.said).not.toContain("kept");
  }
});

test("turning at an angle up does not leave through the ceiling", () => {
  const { navigation, host, drag } = setUp();
  navigation.pose.eye.set(0, 0, 1.6);
  navigation.pose.target.set(0, 5, 0.5);
  // A room three metres high, wide on all sides.
  host.clear = (from, to) => {
    const length = from.distanceTo(to);
    const up = to.z > 3 ? (length * (3 - from.z)) / (to.z - from.z) : length;
    const down = to.z < 0 ? (length * from.z) / (from.z - to.z) : length;
    return Math.min(length, up, down);
  };
  for (let k = 0; k < 8; k++) drag([400, 300], [420, 480]);
  expect(navigation.pose.eye.z).toBeLessThan(3);
});

test("who is moved by keys is told the time since a key went down, and since the frame before while it goes on", () => {
  const { navigation } = setUp();
  const ticks: [number, number][] = [];
  const mover = {
    busy: false,
    askedAt: null as number | null,
    tick: (from: number, to: number) => ticks.push([from, to]) > 0,
    look: () => undefined,
    wheel: () => undefined,
    push: () => undefined,
  };
  navigation.setMover(mover);
  navigation.tick(1000);
  // A key goes down at 1500, and drawing takes three seconds.
  Object.assign(mover, { busy: true, askedAt: 1500 });
  navigation.tick(4500);
  mover.askedAt = null;
  navigation.tick(4900);
  mover.busy = false;
  navigation.tick(5000);
  navigation.tick(9000);
  expect(ticks).toEqual([
    [1000, 1000],
    [1500, 4500],
    [4500, 4900],
    [4900, 5000],
    [9000, 9000],
  ]);
  // What is still to come is no time that has passed.
  Object.assign(mover, { busy: true, askedAt: 9010 });
  navigation.tick(9005);
  expect(ticks.at(-1)).toEqual([9005, 9005]);
  // Nothing moves in a locked view, and it does not ask for frames.
  navigation.locked = true;
  navigation.tick(9100);
  expect(ticks.at(-1)).toEqual([9005, 9005]);
  expect(navigation.busy).toBe(false);
});

const acts = (said: readonly string[]) => said.filter((each) => !each.includes("pivot"));

test("a right click and a finger that rests ask what can be done; a drag and a short touch do not", () => {
  vi.useFakeTimers();
  const { down, move, up, drag, said } = setUp();
  const finger = { kind: "touch" } as const;
  down(500, 300, { button: 2 });
  up(500, 300, { button: 2 });
  expect(acts(said)).toEqual(["asked"]);
  drag([500, 300], [560, 300], { button: 2 });
  expect(acts(said)).toEqual(["asked"]);
  down(500, 300, finger);
  vi.advanceTimersByTime(700);
  up(500, 300, finger);
  expect(acts(said)).toEqual(["asked", "asked"]);
  down(400, 300, finger);
  vi.advanceTimersByTime(200);
  up(400, 300, finger);
  down(400, 200, finger);
  move(460, 200, finger);
  vi.advanceTimersByTime(700);
  up(460, 200, finger);
  expect(acts(said)).toEqual(["asked", "asked", "click"]);
  vi.useRealTimers();
});

test("a double click goes there; one that adds, or in a locked view, does not", () => {
  const { navigation, said } = setUp();
  const at = new Vector2(0.2, 0.1);
  navigation.twice(at, false);
  expect(acts(said)).toEqual(["entered"]);
  navigation.twice(at, true);
  navigation.locked = true;
  navigation.twice(at, false);
  expect(acts(said)).toEqual(["entered"]);
});
