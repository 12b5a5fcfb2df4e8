import { expect, it } from "vitest";
import { type Findings, joined, ofFindings, topicsByPair, topicsOf } from "./finding";

const pair = (a: number, b: number) => ({
  a,
  b,
  kind: "overlap" as const,
  depth_m: 0.1,
  volume_m3: null,
  distance_m: 0,
  at_m: [0, 0, 0],
});
const finding = (a: number, b: number) => ({
  at_m: [0, 0, 0],
  components: [a, b],
  worst: pair(a, b),
  pairs: [pair(a, b)],
});
const found: Findings = {
  checked: 3,
  anew: 3,
  count: 3,
  left_out: {},
  components: ["duct", "beam", "slab", "pipe", "wall"].map((global_id) => ({
    global_id,
    model: "m",
    model_name: "m",
    discipline: null,
    label: global_id,
  })),
  findings: [finding(0, 1), finding(3, 4), finding(0, 2)],
};

it("joins findings as they are wanted: one topic each, one for all, or one for what shares a component", () => {
  expect(joined(found, [0, 1, 2], "each")).toEqual([[0], [1], [2]]);
  expect(joined(found, [0, 1, 2], "all")).toEqual([[0, 1, 2]]);
  expect(joined(found, [0, 1, 2], "component")).toEqual([[0, 2], [1]]);
  expect(joined(found, [], "all")).toEqual([]);
});

it("keeps the pairs by names that newer issues keep, and how bad the first one is", () => {
  const some = found.findings.filter((_, k) => k !== 1);
  expect(ofFindings(found, some, "check")).toEqual({
    check: "check",
    pairs: [
      ["duct", "beam"],
      ["duct", "slab"],
    ],
    measured: { kind: "overlap", depth_m: 0.1, distance_m: 0 },
  });
  expect(ofFindings(found, [], "check")).toBeNull();
});

it("knows which topics there are of a finding, in whichever order a check found its pair", () => {
  const byPair = topicsByPair([
    { id: "t", reference: "AIR-STR 001", pairs: [["beam", "duct"]] },
    { id: "u", reference: "AIR-STR 002", pairs: [["duct", "slab"]] },
    { id: "v", reference: "AIR-STR 003", pairs: [] },
  ]);
  const of = (k: number) => topicsOf(found, found.findings[k] ?? finding(0, 0), byPair).map(({ id }) => id);
  expect([of(0), of(1), of(2)]).toEqual([["t"], [], ["u"]]);
});
