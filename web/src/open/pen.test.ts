import { expect, test } from "vitest";
import { contrast, LEAST_CONTRAST, penOn } from "../stage/pen";
import { tone } from "../style/tone";
import { BACKGROUNDS } from "./habits";

test("a contrast is that of the guideline", () => {
  expect(contrast("#000000", "#ffffff")).toBeCloseTo(21);
  expect(contrast("#777777", "#ffffff")).toBeCloseTo(4.48, 2);
});

test.each(Object.entries(BACKGROUNDS))("lines stand out from the %s background", (_, background) => {
  expect(contrast(penOn(background), background)).toBeGreaterThanOrEqual(LEAST_CONTRAST);
});

test("ink is kept wherever it is seen", () => {
  expect(penOn(BACKGROUNDS.light)).toBe(tone.ink);
  expect(penOn(BACKGROUNDS.dark)).toBe(tone.paper);
});
