import { expect, test } from "vitest";
import { besideCursor } from "./besideCursor";

const view = { width: 500, height: 300 };
const label = { width: 120, height: 20 };

test("a label at the cursor stands right of and below it, and on the other side where it would be cut off", () => {
  expect(besideCursor({ x: 100, y: 100 }, label, view)).toEqual({ left: 116, top: 114 });
  expect(besideCursor({ x: 400, y: 290 }, label, view)).toEqual({ left: 264, top: 256 });
});

test("a label that fits on neither side begins at the edge", () => {
  expect(besideCursor({ x: 60, y: 10 }, { width: 470, height: 295 }, view)).toEqual({ left: 0, top: 0 });
});
