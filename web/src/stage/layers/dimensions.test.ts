import { Vector3 } from "three";
import { describe, expect, test } from "vitest";
import { placeOf, pointAlong } from "./dimensions";

test("a point so far along a line counts all its legs", () => {
  const line = [new Vector3(0, 0, 0), new Vector3(4, 0, 0), new Vector3(4, 6, 0)];
  expect(pointAlong(line, 0.2).toArray()).toEqual([2, 0, 0]);
  expect(pointAlong(line, 0.7).toArray()).toEqual([4, 3, 0]);
  expect(pointAlong(line, 1).toArray()).toEqual([4, 6, 0]);
  expect(pointAlong([new Vector3(1, 1, 1), new Vector3(1, 1, 1)], 0.5).toArray()).toEqual([1, 1, 1]);
});

describe("a label", () => {
  const size = { w: 60, h: 20 };
  const view = { width: 400, height: 300 };
  const at = (x: number, y: number, before = true) => ({ x, y, before });

  test("stands at the first place that is in view and before the eye", () => {
    expect(placeOf([at(500, 100), at(200, 100, false), at(200, 150)], size, view, [])).toEqual({
      at: 2,
      off: 0,
    });
  });

  test("goes along its line, and then off it, where another one lies", () => {
    const taken = [{ x: 200, y: 150, w: 60, h: 20 }];
    expect(placeOf([at(210, 150), at(300, 150)], size, view, taken)).toEqual({ at: 1, off: 0 });
    expect(placeOf([at(210, 150)], size, view, taken)?.off).toBeGreaterThan(1);
  });

  test("is not drawn where nothing of its line is in view", () => {
    expect(placeOf([at(-50, 100)], size, view, [])).toBeNull();
  });
});
