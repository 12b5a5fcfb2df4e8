import { beforeEach, expect, test } from "vitest";
import { TOP_STOREY_M } from "../api/constants";
import { useHabits } from "../open/habits";
import { federationOf } from "../open/testFederation";
import { EVERYTHING, useViewState } from "../open/visibility/viewState";
import { LID_M, liftLid, onItsWay, storeyMeant } from "./lid";

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

test("the storey is that of the eye in the building, else of what it looks at", () => {
  expect(storeyMeant(federation, 1.6, 4.2)).toBe(0);
  expect(storeyMeant(federation, 60, 4.2)).toBe(1);
});

test("a lid starts and ends softly", () => {
  expect(onItsWay(10, 2, 0)).toBe(10);
  expect(onItsWay(10, 2, 0.5)).toBe(6);
  expect(onItsWay(10, 2, 1)).toBe(2);
  expect(onItsWay(10, 2, 0.1)).toBeGreaterThan(9.7);
});

test("the storey is that of an eye within the building, up to the top of its last storey, else of what is looked at", () => {
  const levels = federation.levels;
  const last = levels.length - 1;
  const top = (levels[last]?.elevation_m ?? 0) + TOP_STOREY_M;
  expect(storeyMeant(federation, top - 0.01, 0)).toBe(last);
  expect(storeyMeant(federation, top + 0.01, levels[0]?.elevation_m ?? 0)).toBe(0);
});
