import { Vector2, Vector3 } from "three";
import { beforeEach, expect, test } from "vitest";
import { StageCamera } from "./camera";
import { Navigation } from "./navigation";
import type { NavigationHost } from "./navigationHost";
import { forward, type Pose, withAngle } from "./pose";
import { StateTable } from "./states";

const WIDTH = 800;
const HEIGHT = 500;

/** A canvas that only hands its events on, and a floor at z = 0 to point at. */
function setUp(projection: Pose["projection"] = "perspective", turns = true) {
  const listeners = new Map<string, (event: never) => void>();
  const element = {
    addEventListener: (kind: string, run: (event: never) => void) => listeners.set(kind, run),
    getBoundingClientRect: () => ({ left: 0, top: 0, width: WIDTH, height: HEIGHT }),
    setPointerCapture: () => undefined,
  } as unknown as HTMLElement;
  const camera = new StageCamera();
  camera.setAspect(WIDTH / HEIGHT);
  const said: string[] = [];
  let navigation: Navigation;
  const sync = () => camera.place(navigation.pose, boundsOfFloor());
  const host: NavigationHost = {
    element,
    size: () => ({ width: WIDTH, height: HEIGHT }),
    turns,
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
    hovered: () => undefined,
    stopped: () => said.push("stopped"),
    clear: (from, to) => from.distanceTo(to),
    kept: () => said.push("kept"),
    moverLeft: () => said.push("left"),
    region: (_from, _to, done) => said.push(done ? "region" : "drawing"),
  };
  navigation = new Navigation(
    {
      eye: new Vector3(0, -30, 20),
      target: new Vector3(0, 0, 0),
      up: new Vector3(0, 0.55, 0.83).normalize(),
      projection,
      angleDeg: 50,
      heightM: 30,
      throughM: 0,
    },
    host,
  );
  const fire = (kind: string, x: number, y: number, more: object = {}) =>
    listeners.get(kind)?.({
      clientX: x,
      clientY: y,
      pointerId: 1,
      button: 0,
      pointerType: "mouse",
      shiftKey: false,
      ctrlKey: false,
      metaKey: false,
      deltaMode: 0,
      deltaY: 0,
      type: kind,
      preventDefault: () => undefined,
      ...more,
    } as never);
  const at = (x: number, y: number) => new Vector2((x / WIDTH) * 2 - 1, 1 - (y / HEIGHT) * 2);
  const seen = (point: Vector3) => {
    sync();
    const p = camera.project(point);
    return [((p.x + 1) / 2) * WIDTH, ((1 - p.y) / 2) * HEIGHT] as const;
  };
  const drag = (from: readonly [number, number], to: readonly [number, number]) => {
    fire("pointerdown", ...from);
    fire("pointermove", ...to);
    fire("pointerup", ...to);
  };
  return { navigation, host, fire, drag, at, seen, said };
}

function boundsOfFloor() {
  const { Box3 } = three;
  return new Box3(new Vector3(-60, -60, -1), new Vector3(60, 60, 5));
}

let three: typeof import("three");
beforeEach(async () => {
  three = await import("three");
});

test("turning keeps the pivot in its place and the horizon level", () => {
  const { navigation, host, fire, at, seen, said } = setUp();
  const pivot = host.pointAt(at(500, 300));
  if (!pivot) throw new Error("no floor there");
  fire("pointerdown", 500, 300);
  fire("pointermove", 560, 300);
  fire("pointermove", 640, 260);
  const [x, y] = seen(pivot);
  expect(x).toBeCloseTo(500, 3);
  expect(y).toBeCloseTo(300, 3);
  const right = new Vector3().crossVectors(forward(navigation.pose), navigation.pose.up);
  expect(right.z).toBeCloseTo(0, 9);
  fire("pointerup", 640, 260);
  expect(said).toEqual(["pivot", "no pivot"]);
});

test("no drag tips the building over", () => {
  const { navigation, fire } = setUp();
  fire("pointerdown", 400, 250);
  for (let y = 250; y > -6000; y -= 250) fire("pointermove", 400, y);
  expect(navigation.pose.up.z).toBeGreaterThanOrEqual(0);
  expect(Math.abs(forward(navigation.pose).z)).toBeLessThan(1);
});

test("a press without a drag is a click, with Shift it adds", () => {
  const { fire, said } = setUp();
  fire("pointerdown", 400, 300);
  fire("pointermove", 402, 301);
  fire("pointerup", 402, 301);
  fire("pointerdown", 400, 300);
  fire("pointerup", 400, 300, { shiftKey: true });
  expect(said.filter((s) => s !== "no pivot")).toEqual(["click", "add"]);
});

for (const projection of ["perspective", "parallel"] as const) {
  test(`panning takes the point along with the cursor, ${projection}`, () => {
    const { host, fire, at, seen } = setUp(projection);
    const point = host.pointAt(at(300, 280));
    if (!point) throw new Error("no floor there");
    fire("pointerdown", 300, 280, { button: 2 });
    fire("pointermove", 380, 320);
    fire("pointermove", 450, 390);
    const [x, y] = seen(point);
    expect(x).toBeCloseTo(450, 3);
    expect(y).toBeCloseTo(390, 3);
  });

  test(`the wheel keeps the point under the cursor, ${projection}`, () => {
    const { navigation, host, fire, at, seen } = setUp(projection);
    const point = host.pointAt(at(520, 200));
    if (!point) throw new Error("no floor there");
    const before =
      projection === "parallel" ? navigation.pose.heightM : navigation.pose.eye.distanceTo(point);
    fire("wheel", 520, 200, { deltaY: -100 });
    for (let now = 1; now < 2000; now += 16) navigation.tick(now);
    const after = projection === "parallel" ? navigation.pose.heightM : navigation.pose.eye.distanceTo(point);
    expect(after / before).toBeCloseTo(0.82, 2);
    const [x, y] = seen(point);
    expect(x).toBeCloseTo(520, 3);
    expect(y).toBeCloseTo(200, 3);
  });
}

test("the wheel stops before the surface and says so", () => {
  const { navigation, host, fire, at, said } = setUp();
  const point = host.pointAt(at(400, 250));
  if (!point) throw new Error("no floor there");
  for (let i = 0; i < 40; i++) {
    fire("wheel", 400, 250, { deltaY: -400 });
    for (let k = 0; k < 40; k++) navigation.tick(i * 1000 + k * 16);
  }
  expect(navigation.pose.eye.distanceTo(point)).toBeCloseTo(0.05, 3);
  expect(said).toContain("stopped");
});

test("a glide ends exactly at its pose and a drag ends a glide", () => {
  const { navigation, fire } = setUp();
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
  fire("pointerdown", 10, 10);
  expect(navigation.busy).toBe(false);
});

test("states are texels: hover and pick do not undo each other", () => {
  const table = new StateTable();
  table.resize(3);
  table.setVisible(["shown", "faded", "hidden"]);
  expect([0, 1, 2].map((i) => table.isVisible(i))).toEqual([true, true, false]);
  expect([0, 1, 2].map((i) => table.isSolid(i))).toEqual([true, false, false]);
  expect(table.anyFaded).toBe(true);
  const green = (i: number) => (table.texture.image.data as Uint8Array)[i * 4 + 1];
  table.setPicked([0]);
  table.setHovered(0);
  expect(green(0)).toBe(255);
  table.setHovered(1);
  expect([green(0), green(1)]).toEqual([255, 128]);
  expect(table.setHovered(1)).toBe(false);
  table.setPicked([]);
  table.setHovered(-1);
  expect([green(0), green(1)]).toEqual([0, 0]);
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

test("a locked view does not move", () => {
  const { navigation, drag } = setUp();
  const before = navigation.pose.eye.clone();
  navigation.locked = true;
  drag([400, 250], [500, 300]);
  navigation.roll(10);
  navigation.zoomByHandle(50);
  expect(navigation.pose.eye).toEqual(before);
});

test("a region is drawn with the left button while everything else moves as always", () => {
  const { navigation, drag, said } = setUp();
  const before = navigation.pose.eye.clone();
  navigation.drawsRegions = true;
  drag([300, 200], [500, 300]);
  expect(said).toContain("drawing");
  expect(said.at(-1)).toBe("region");
  expect(navigation.pose.eye).toEqual(before);
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
