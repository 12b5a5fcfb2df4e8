import { expect, test } from "vitest";
import { dragged, isWhole, placed, WIDEST } from "./frame";

const WHOLE = { aspect: 1.6, left: -1, right: 1, bottom: -1, top: 1 };

test("a side is dragged outwards and inwards, and stays within what can be drawn", () => {
  expect(dragged(WHOLE, "left", { x: -0.3, y: 5 })).toEqual({ ...WHOLE, left: -1.3 });
  expect(dragged(WHOLE, "left", { x: -9, y: 0 }).left).toBe(-WIDEST);
  expect(dragged(WHOLE, "top", { x: 0, y: -9 }).top).toBeCloseTo(-0.8);
  expect(isWhole(dragged(WHOLE, "right", { x: 0, y: 1 }))).toBe(true);
});

test("a frame that is moved keeps its size", () => {
  const moved = dragged({ ...WHOLE, left: 0 }, "all", { x: 9, y: -0.2 });
  expect(moved).toEqual({ aspect: 1.6, left: 0.6000000000000001, right: 1.6, bottom: -1.2, top: 0.8 });
});

test("the widest frame covers the whole picture of the widest", () => {
  const widest = { aspect: 1, left: -WIDEST, right: WIDEST, bottom: -WIDEST, top: WIDEST };
  expect(placed(widest)).toEqual({ left: "0%", top: "0%", width: "100%", height: "100%" });
  expect(placed(WHOLE).width).toBe("62.5%");
});
