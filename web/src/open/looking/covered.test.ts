import { expect, test } from "vitest";
import { coveredBy } from "./covered";

const STAGE = { left: 200, top: 50, width: 1000, height: 500 };
const NOTHING = { left: 0, right: 0, top: 0, bottom: 0 };

test("what lies in a corner is kept clear of at either side", () => {
  const corner = { left: 210, top: 300, width: 190, height: 240 };
  expect(coveredBy(STAGE, [corner])).toEqual([
    { ...NOTHING, left: 0.2 },
    { ...NOTHING, bottom: 0.5 },
  ]);
});

test("the rest gives up what costs least, and nothing where something was given up already", () => {
  const corner = { left: 210, top: 300, width: 190, height: 240 };
  const bar = { left: 210, top: 60, width: 180, height: 40 };
  const far = { left: 1100, top: 520, width: 90, height: 20 };
  expect(coveredBy(STAGE, [bar, far, corner])).toEqual([
    { ...NOTHING, left: 0.2, bottom: 0.06 },
    { ...NOTHING, bottom: 0.5, top: 0.1 },
  ]);
});

test("what is elsewhere, or covers nearly all, is not kept clear of", () => {
  expect(coveredBy(STAGE, [{ left: 0, top: 0, width: 150, height: 800 }])).toEqual([NOTHING]);
  expect(coveredBy(STAGE, [{ left: 200, top: 50, width: 900, height: 490 }])).toEqual([NOTHING]);
  expect(coveredBy(STAGE, [])).toEqual([NOTHING]);
});
