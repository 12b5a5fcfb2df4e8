import { expect, test } from "vitest";
import type { Shapes } from "../../api/client";
import { planeCount, tooManyPlanes, withinPlanes } from "./planes";

const box = (id: string, off = false): Shapes["Cut"] => ({
  id,
  name: id,
  off,
  shape: { kind: "box", centre_m: [0, 0, 0], size_m: [1, 1, 1], bearing_deg: 0 },
});

test("five boxes are more planes than are drawn, and the fifth is switched off", () => {
  const four = ["a", "b", "c", "d"].map((id) => box(id));
  const five = [...four, box("e")];
  expect([planeCount(four), planeCount(five), planeCount([...four, box("e", true)])]).toEqual([24, 30, 24]);
  expect(tooManyPlanes(four)).toBe("");
  expect(tooManyPlanes(five)).toContain("30 planes");
  expect(withinPlanes(four)).toBe(four);
  expect(withinPlanes(five).map((cut) => cut.off)).toEqual([false, false, false, false, true]);
});
