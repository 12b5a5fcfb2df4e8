import { Vector3 } from "three";
import { expect, test } from "vitest";
import type { Shapes } from "../api/client";
import type { Pose } from "../stage/pose";
import { fromView, today, toView } from "./document";
import { federationOf } from "./testFederation";

type Rule = Shapes["Rule"];
const POSE: Pose = {
  eye: new Vector3(1, -20, 3),
  target: new Vector3(0, 0, 1),
  up: new Vector3(0, 0, 1),
  projection: "perspective",
  angleDeg: 42,
  heightM: 9,
  throughM: 1.5,
};
const HIDE: Rule = {
  select: { kind: "these", of: { arc: ["b", "gone"] } },
  effect: "hide",
  colour: null,
  by: "Ada",
  at: "",
  why: "",
  off: false,
};
const MEASURE: Shapes["Measure"] = {
  id: "m",
  name: "",
  what: {
    kind: "points",
    points_m: [
      [0, 0, 0],
      [0, 0, 2],
    ],
    main: "distance",
  },
};
const at = (origin: number[], ids: string[]) =>
  federationOf({ arc: ids.map((id) => [id, 0, 0] as const) }, { origin_m: origin });

test("a view comes back by names although numbers and origin have changed", () => {
  const view = toView(
    at([100, 0, 0], ["a", "b"]),
    POSE,
    {
      rules: [HIDE],
      depthM: 7,
      cuts: [],
      whole: {},
      measures: [MEASURE],
      style: "lines",
      markups: [],
      pictures: [],
    },
    [{ model: "arc", global_id: "a" }],
  );
  expect(view.eye.eye_m).toEqual([101, -20, 3]);
  const back = fromView(at([90, 0, 0], ["x", "b", "a"]), view);
  expect(back.pose.eye.toArray()).toEqual([11, -20, 3]);
  expect(back.pose.throughM).toBe(1.5);
  expect(back.look).toEqual({
    rules: [HIDE],
    depthM: 7,
    cuts: [],
    whole: {},
    measures: [MEASURE],
    style: "lines",
    markups: [],
    pictures: [],
  });
  expect(back.picked).toEqual([2]);
  expect(back.missing).toBe(1);
});

test("what an earlier version kept is read as rules, in project coordinates", () => {
  const view = today({
    pose: {
      eye_m: [1, 2, 3],
      target_m: [4, 5, 6],
      up: [0, 0, 1],
      projection: "parallel",
      angle_deg: 60,
      height_m: 7,
      through_m: 2,
    },
    origin_m: [100, 200, 0],
    cells: [{ level: null, discipline: "ARC", state: "faded" }],
    hidden: [
      { model: "arc", global_id: "a" },
      { model: "arc", global_id: "b" },
    ],
  });
  expect(view.eye.eye_m).toEqual([101, 202, 3]);
  expect(view.limits?.through_m).toBe(2);
  expect(view.rules?.map((r) => r.effect)).toEqual(["fade", "hide"]);
  expect(view.rules?.[1]?.select).toEqual({ kind: "these", of: { arc: ["a", "b"] } });
  expect(today(view)).toBe(view);
});
