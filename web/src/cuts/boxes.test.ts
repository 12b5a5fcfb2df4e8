import { expect, test } from "vitest";
import type { CutShape } from "../open/cuts/shape";
import { boxBetween, openedTowards } from "./boxes";

const federation = {
  building_north_deg: 0,
  levels: [
    { name: "Level 00", elevation_m: 0, begins_m: -0.25 },
    { name: "Level 01", elevation_m: 4, begins_m: 3.75 },
  ],
};

test("a box between two corners is as high as the storey of the lower one and turned with the building", () => {
  expect(boxBetween(federation, [1, 2, 0.5], [4, 8, 2])).toEqual({
    kind: "box",
    centre_m: [2.5, 5, 2],
    size_m: [3, 6, 4],
    bearing_deg: 0,
  });
  const turned = boxBetween({ ...federation, building_north_deg: 90 }, [0, 0, 5], [3, 6, 5]);
  expect(turned?.size_m.map((c) => Number(c.toFixed(9)))).toEqual([6, 3, 4]);
  expect(boxBetween(federation, [1, 2, 0], [1, 8, 0])).toBeNull();
});

test("a room is opened on the side of the eye", () => {
  const box: CutShape = { kind: "box", centre_m: [0, 0, 1.5], size_m: [4, 6, 3], bearing_deg: 0 };
  // Looking north one stands south of it.
  expect(openedTowards(box, [0, 1, 0])).toMatchObject({ size_m: [4, 5.25, 3], centre_m: [0, 0.375, 1.5] });
  expect(openedTowards(box, [0, 0.2, -1])).toMatchObject({ size_m: [4, 6, 2.25] });
});
