import type { Federation } from "../api/client";
import { TOP_STOREY_M } from "../api/constants";
import type { Selector } from "../open/visibility/selectors";
import { byDiscipline, type ColumnOf, cellKey, NO_LEVEL, type Tally } from "../open/visibility/tallies";
import type { Rule } from "../open/visibility/viewState";
import type { State } from "../stage/states";

/** One level of the board. */
export interface Row {
  level: number;
  name: string;
  elevationM: number;
  heightM: number;
  counts: Map<number, number>;
}

const LEAST_M = 1.6;

/** The parts of a cell that are hidden, faded and shown, from the top down, as shares of it. */
export function partsOf({ there, faded, hidden }: Tally): { hidden: number; faded: number; shown: number } {
  const part = (count: number) => (there ? count / there : 0);
  return { hidden: part(hidden), faded: part(faded), shown: part(there - faded - hidden) };
}

/** Where an arrow key leads on a board from one place to the next that there is; the same at its ends. */
export function besides(
  key: string,
  [row, column]: readonly [number, number],
  is: (row: number, column: number) => boolean,
  [rows, columns]: readonly [number, number],
): readonly [number, number] {
  const down = key === "ArrowDown" ? 1 : key === "ArrowUp" ? -1 : 0;
  const across = key === "ArrowRight" ? 1 : key === "ArrowLeft" ? -1 : 0;
  if (!down && !across) return [row, column];
  for (let r = row + down, c = column + across; ; r += down, c += across) {
    if (r < 0 || c < 0 || r >= rows || c >= columns) return [row, column];
    if (is(r, c)) return [r, c];
  }
}

/** How a cell reads: by what most of its components are; off only where nothing of it is to be seen. */
export function stateOf(tally: Tally | undefined): State {
  if (!tally || tally.shown > 0) return "shown";
  return tally.faded > 0 ? "faded" : "hidden";
}

const NEXT: Record<State, State> = { shown: "faded", faded: "hidden", hidden: "shown" };
const EFFECT = { shown: "show", faded: "fade", hidden: "hide" } as const satisfies Record<State, string>;

/**
 * What a click on cells does: they go to the state after the one they read as. Where the answer to the click before is still
 * on its way, they read as what that one asked for.
 */
export function effectAfter(
  cells: Tally | undefined,
  select: Selector,
  { asking, rules }: { asking: boolean; rules: readonly Rule[] },
): "show" | "fade" | "hide" {
  const last = asking ? rules.at(-1) : undefined;
  const same = last && JSON.stringify(last.select) === JSON.stringify(select);
  const state = same && (Object.keys(EFFECT) as State[]).find((each) => EFFECT[each] === last.effect);
  return EFFECT[NEXT[state || stateOf(cells)]];
}

/** Rows from the top down, columns in the order of the disciplines, with counts. */
export function boardOf(
  federation: Federation,
  columnOf: ColumnOf = byDiscipline,
): { columns: number[]; rows: Row[] } {
  const counts = new Map<string, number>();
  const used = new Set<number>();
  const usedLevels = new Set<number>();
  for (const model of federation.models) {
    if (!model.stands) continue;
    model.level.forEach((level, i) => {
      const column = columnOf(model.first + i, model.discipline[i] ?? 0);
      if (column < 0) return;
      const key = cellKey(level, column);
      counts.set(key, (counts.get(key) ?? 0) + 1);
      used.add(column);
      usedLevels.add(level);
    });
  }
  const columns = [...used].sort((a, b) => a - b);
  const countsOf = (level: number) =>
    new Map(columns.map((d) => [d, counts.get(cellKey(level, d)) ?? 0] as const));
  const rows: Row[] = federation.levels
    .map((level, index) => {
      const above = federation.levels[index + 1]?.elevation_m;
      return {
        level: index,
        name: level.name.replace(/^Level /, ""),
        elevationM: level.elevation_m,
        heightM:
          above === undefined ? TOP_STOREY_M : Math.max(LEAST_M, Math.min(8, above - level.elevation_m)),
        counts: countsOf(index),
      };
    })
    .filter((row) => usedLevels.has(row.level))
    .reverse();
  if (usedLevels.has(NO_LEVEL)) {
    rows.push({
      level: NO_LEVEL,
      name: "No level",
      elevationM: Number.NEGATIVE_INFINITY,
      heightM: LEAST_M,
      counts: countsOf(NO_LEVEL),
    });
  }
  return { columns, rows };
}

/** How far down the board a height lies, and whether it is beyond the levels. */
export function heightShare(
  rows: readonly Row[],
  heightM: number,
): { share: number; beyond: "above" | "below" | "no" } {
  const levels = rows.filter((row) => Number.isFinite(row.elevationM));
  const total = rows.reduce((sum, row) => sum + row.heightM, 0) || 1;
  let top = 0;
  for (const row of levels) {
    const ceiling = row.elevationM + row.heightM;
    if (heightM >= ceiling) return { share: top / total, beyond: row === levels[0] ? "above" : "no" };
    if (heightM >= row.elevationM) return { share: (top + ceiling - heightM) / total, beyond: "no" };
    top += row.heightM;
  }
  return { share: top / total, beyond: "below" };
}

/** The height that lies so far down the board. */
export function heightAt(rows: readonly Row[], share: number): number {
  const levels = rows.filter((row) => Number.isFinite(row.elevationM));
  const total = rows.reduce((sum, row) => sum + row.heightM, 0) || 1;
  let down = share * total;
  for (const row of levels) {
    if (down <= row.heightM) return row.elevationM + row.heightM - down;
    down -= row.heightM;
  }
  return levels.at(-1)?.elevationM ?? 0;
}
