import { expect, test } from "vitest";
import type { Federation } from "../api/client";
import { ALL_SHOWN, resolve } from "../project/session";
import { boardOf, heightShare, withCells } from "./board";

const model = (id: string, first: number, stands: boolean) => ({
  id,
  name: id,
  first,
  stands,
  count: 0,
  elsewhere: false,
  named: "",
  placed: "",
  alternative_what: null,
  alternative_option: null,
  global_ids: ["a", "b", "c"],
  labels: ["A", "B", "C"],
  level: [0, 1, -1],
  discipline: [0, 1, 1],
  colour: [0, 0, 0],
  chunks: [],
});

const federation: Federation = {
  id: "p",
  name: "House",
  version: 1,
  trouble: "",
  origin_m: [0, 0, 0],
  bounds_m: null,
  building_north_deg: 0,
  true_north_deg: null,
  disciplines: [
    { code: "ARC", name: "Architecture", colour: "#7d8790" },
    { code: "STR", name: "Structure", colour: "#7a5fa8" },
  ],
  levels: [
    { name: "Level 00", elevation_m: 0 },
    { name: "Level 01", elevation_m: 4 },
  ],
  rooms: [],
  colours: ["#ffffff"],
  models: [model("one", 0, true), model("two", 3, false)],
};

test("rows run from the top down, with what is on no level last", () => {
  const { rows, columns } = boardOf(federation);
  expect(rows.map((r) => [r.name, r.elevation])).toEqual([
    ["01", "+4.00"],
    ["00", "±0.00"],
    ["No level", ""],
  ]);
  expect(columns).toEqual([0, 1]);
  expect(rows[0]?.counts.get(1)).toBe(1);
});

test("a model that does not stand is hidden and not counted", () => {
  expect(resolve(federation, ALL_SHOWN)).toEqual(["shown", "shown", "shown", "hidden", "hidden", "hidden"]);
  expect(boardOf(federation).count(ALL_SHOWN, "hidden")).toBe(0);
});

test("setting a cell takes its components along, whatever they were", () => {
  const own = {
    cells: new Map(),
    components: new Map([
      [1, "faded" as const],
      [0, "faded" as const],
    ]),
  };
  const next = withCells(own, federation, [[1, 1]], "hidden");
  expect(resolve(federation, next).slice(0, 3)).toEqual(["faded", "hidden", "shown"]);
});

test("the eye's height falls between the levels as they are drawn", () => {
  const { rows } = boardOf(federation);
  expect(heightShare(rows, 100).beyond).toBe("above");
  expect(heightShare(rows, -3).beyond).toBe("below");
  const total = rows.reduce((sum, row) => sum + row.heightM, 0);
  const top = rows[0]?.heightM ?? 0;
  expect(heightShare(rows, 4).share).toBeCloseTo(top / total);
  expect(heightShare(rows, 2).share).toBeCloseTo((top + 2) / total);
});
