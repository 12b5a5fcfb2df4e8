import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { HeldKeys } from "./heldKeys";
import { TestKeys } from "./testKeys";

let page: TestKeys;
let woken = 0;
let keys: HeldKeys;

beforeEach(() => {
  page = new TestKeys();
  woken = 0;
  keys = new HeldKeys(() => woken++, new Set(["PageUp", "PageDown"]));
});
afterEach(() => {
  keys.dispose();
  vi.unstubAllGlobals();
});

test("a press that no frame saw counts for as long as it was held", () => {
  page.hold("KeyW", 1010, 1260);
  expect(woken).toBe(2);
  expect(keys.any).toBe(true);
  expect(keys.changedAt).toBe(1010);
  const asked = keys.asked(1000, 1700);
  expect(asked.map((a) => [Math.round(a.seconds * 1000), a.ahead])).toEqual([
    [10, 0],
    [250, 1],
    [440, 0],
  ]);
  expect(keys.any).toBe(false);
  expect(keys.changedAt).toBeNull();
});

test("keys that overlap ask for both, each for its own time, over frames", () => {
  page.send("keydown", "KeyW", 0);
  page.send("keydown", "ArrowLeft", 100);
  expect(keys.asked(0, 150).map((a) => [a.seconds, a.ahead, a.turn])).toEqual([
    [0.1, 1, 0],
    [0.05, 1, -1],
  ]);
  page.send("keyup", "KeyW", 300);
  expect(keys.asked(150, 350).map((a) => [a.seconds, a.ahead, a.turn])).toEqual([
    [0.15, 1, -1],
    [0.05, 0, -1],
  ]);
  page.send("keyup", "ArrowLeft", 350);
  expect(keys.asked(350, 360)).toMatchObject([{ ahead: 0, turn: 0 }]);
});

test("what comes after a frame's time waits for the next", () => {
  page.send("keydown", "KeyD", 50);
  expect(keys.asked(40, 45)).toMatchObject([{ aside: 0 }]);
  expect(keys.any).toBe(true);
  expect(keys.asked(45, 60).map((a) => a.aside)).toEqual([0, 1]);
});

test("running lasts as long as its key, and one key against another is none", () => {
  page.send("keydown", "KeyW", 0);
  page.send("keydown", "ShiftLeft", 10, { shiftKey: true });
  page.send("keyup", "ShiftLeft", 30);
  page.send("keydown", "KeyS", 40);
  const asked = keys.asked(0, 50);
  expect(asked.map((a) => a.fast)).toEqual([false, true, false, false]);
  expect(asked.map((a) => a.ahead)).toEqual([1, 1, 1, 0]);
});

test("what others keep, and keys with others held, move nothing", () => {
  expect(page.send("keydown", "PageUp", 0).defaultPrevented).toBe(false);
  expect(page.send("keydown", "KeyW", 0, { ctrlKey: true }).defaultPrevented).toBe(false);
  expect(keys.any).toBe(false);
  page.send("keydown", "KeyA", 0);
  page.send("keydown", "KeyW", 5, { ctrlKey: true });
  page.send("keydown", "KeyA", 6, { repeat: true });
  expect(keys.asked(0, 10).map((a) => [a.ahead, a.aside])).toEqual([
    [0, -1],
    [0, -1],
  ]);
});

test("going to another window lets go of everything", () => {
  page.send("keydown", "KeyW", 0);
  keys.asked(0, 10);
  page.leave();
  expect(keys.any).toBe(false);
  expect(keys.asked(10, 20)).toMatchObject([{ ahead: 0 }]);
});

test("a key that went down in a menu counts from its first repeat on", () => {
  page.send("keydown", "KeyW", 500, { repeat: true });
  page.send("keydown", "KeyW", 530, { repeat: true });
  page.send("keyup", "KeyW", 700);
  expect(woken).toBe(2);
  expect(keys.asked(500, 800).map((a) => [Math.round(a.seconds * 1000), a.ahead])).toEqual([
    [200, 1],
    [100, 0],
  ]);
});
