import { beforeEach, expect, test } from "vitest";

import { useHabits } from "../open/habits";
import { federationOf } from "../open/testFederation";
import { EVERYTHING, useViewState } from "../open/visibility/viewState";
import { LID_M, liftLid, onItsWay } from "./lid";

const federation = federationOf({ one: [["a", 0, 0]] }, {}, []);

beforeEach(() => {
  useViewState.setState({ ...EVERYTHING, federation: null });
  useHabits.setState({ instant: true });
});

test("a lid is a cut above a storey's rooms, and the second time it is put back", () => {
  const level = federation.levels[1];
  liftLid(federation, null, 1);
  const [cut] = useViewState.getState().cuts;
  expect(cut?.name).toBe(`Lid of ${level?.name}`);
  expect(cut?.shape).toEqual({
    kind: "plane",
    point_m: [0, 0, (level?.elevation_m ?? 0) + LID_M],
    normal: [0, 0, 1],
  });
  liftLid(federation, null, 1);
  expect(useViewState.getState().cuts).toEqual([]);
});

test("a lid starts and ends softly", () => {
  expect(onItsWay(10, 2, 0)).toBe(10);
  expect(onItsWay(10, 2, 0.5)).toBe(6);
  expect(onItsWay(10, 2, 1)).toBe(2);
  expect(onItsWay(10, 2, 0.1)).toBeGreaterThan(9.7);
});
