import { expect, test } from "vitest";
import { federationOf } from "../open/testFederation";
import { tallies, together } from "../open/visibility/tallies";
import { besides, boardOf, effectAfter, heightAt, heightShare, partsOf, stateOf } from "./board";

const ROWS = [
  ["a", 0, 0],
  ["b", 1, 1],
  ["c", -1, 1],
] as const;
const federation = federationOf({ one: ROWS, two: ROWS }, {}, ["two"]);

test("rows run from the top down, with what is on no level last", () => {
  const { rows, columns } = boardOf(federation);
  expect(rows.map((r) => [r.name, r.elevationM])).toEqual([
    ["01", 4],
    ["00", 0],
    ["No level", Number.NEGATIVE_INFINITY],
  ]);
  expect(columns).toEqual([0, 1]);
  expect(rows[0]?.counts.get(1)).toBe(1);
});

test("cells say how many of what there is are shown, and what does not stand does not count", () => {
  const cells = tallies(federation, new Uint8Array([2, 0, 1, 0, 0, 0]));
  expect(cells.get("0/0")).toEqual({ there: 1, shown: 1, faded: 0, hidden: 0 });
  expect([...cells.values()].map(stateOf)).toEqual(["shown", "hidden", "faded"]);
  expect(together(cells.values())).toEqual({ there: 3, shown: 1, faded: 1, hidden: 1 });
});

test("a cell is off only where nothing of it is to be seen", () => {
  expect(stateOf({ there: 9, shown: 1, faded: 4, hidden: 4 })).toBe("shown");
  expect(stateOf({ there: 9, shown: 0, faded: 1, hidden: 8 })).toBe("faded");
  expect(stateOf({ there: 9, shown: 0, faded: 0, hidden: 9 })).toBe("hidden");
  expect(stateOf(undefined)).toBe("shown");
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

test("what lies so far down the board is the height that is drawn there", () => {
  const { rows } = boardOf(federation);
  for (const height of [0, 0.7, 2, 3.99, 4.5, 6]) {
    expect(heightAt(rows, heightShare(rows, height).share)).toBeCloseTo(height);
  }
});

test("columns may be others than the disciplines, and what is in none of them is left out", () => {
  const systems = [1, -1, 0, 1, -1, 0];
  const columnOf = (component: number) => systems[component] ?? -1;
  const { rows, columns } = boardOf(federation, columnOf);
  expect(columns).toEqual([0, 1]);
  expect(rows.map((row) => row.name)).toEqual(["00", "No level"]);
  const cells = tallies(federation, new Uint8Array([2, 0, 1, 0, 0, 0]), columnOf);
  expect([...cells.keys()]).toEqual(["0/1", "-1/0"]);
});

test("a cell is split by how much of it is shown", () => {
  expect(partsOf({ there: 4, shown: 1, faded: 1, hidden: 2 })).toEqual({
    hidden: 0.5,
    faded: 0.25,
    shown: 0.25,
  });
});

test("arrow keys go to the next place that there is", () => {
  const is = (row: number, column: number) => !(row === 1 && column === 1);
  const from = (key: string, at: readonly [number, number]) => besides(key, at, is, [3, 3]);
  expect(from("ArrowRight", [1, 0])).toEqual([1, 2]);
  expect(from("ArrowDown", [0, 1])).toEqual([2, 1]);
  expect(from("ArrowLeft", [0, 0])).toEqual([0, 0]);
  expect(from("Enter", [0, 0])).toEqual([0, 0]);
});

test("a second click on a cell goes on from the first, also before the first is answered", () => {
  const select = { kind: "of", what: "system", value: "Supply 1" } as const;
  const rule = { select, effect: "fade", by: "", at: "", colour: null, why: "", off: false } as const;
  const shown = { there: 3, shown: 3, faded: 0, hidden: 0 };
  expect(effectAfter(shown, select, { asking: false, rules: [] })).toBe("fade");
  expect(effectAfter(shown, { ...select }, { asking: true, rules: [rule] })).toBe("hide");
  expect(effectAfter(shown, { ...select, value: "Extract" }, { asking: true, rules: [rule] })).toBe("fade");
  expect(effectAfter({ ...shown, shown: 0, faded: 3 }, select, { asking: false, rules: [rule] })).toBe(
    "hide",
  );
});
