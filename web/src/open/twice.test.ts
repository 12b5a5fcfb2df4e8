import SIDES from "@cases/cut_sides.json";
import NEXT from "@cases/next_frame.json";
import { expect, test } from "vitest";
import type { Shapes } from "../api/client";
import { type CutShape, sidesOf } from "./cuts/shape";
import { federationOf } from "./testFederation";
import { expected } from "./visibility/expected";
import { plain } from "./visibility/viewState";

type Rule = Shapes["Rule"];

test.each(SIDES)(
  "the planes of a cut are those of the core, in their order: $shape.kind",
  ({ shape, sides }) => {
    const found = sidesOf(shape as CutShape);
    expect(found).toHaveLength(sides.length);
    for (const [k, { normal, point_m }] of sides.entries())
      for (const axis of [0, 1, 2]) {
        expect(found[k]?.normal[axis]).toBeCloseTo(normal[axis] ?? Number.NaN, 12);
        expect(found[k]?.point_m[axis]).toBeCloseTo(point_m[axis] ?? Number.NaN, 12);
      }
  },
);

test.each(NEXT.cases)("the next frame shows what the core will answer: $states", ({ rules, states }) => {
  const rows = Object.entries(NEXT.models).map(([id, of]) => [
    id,
    of.map(([name, level, discipline]) => [String(name), Number(level), Number(discipline)] as const),
  ]);
  const federation = federationOf(Object.fromEntries(rows), {}, NEXT.not_in_use);
  const full = (rule: (typeof rules)[number]): Rule =>
    ({ colour: null, by: "", at: "", why: "", off: false, ...rule }) as Rule;
  let now: Uint8Array | null = plain(federation);
  for (const rule of rules) now = now && expected(federation, now, full(rule));
  expect(now && [...now].join("")).toBe(states);
});
