import type { Federation } from "../api/client";
import { cellKey, NO_LEVEL, resolve, type Visibility } from "../project/session";
import type { State } from "../stage/states";

/** One level of the board. */
export interface Row {
  level: number;
  name: string;
  elevation: string;
  elevationM: number;
  heightM: number;
  counts: Map<number, number>;
}

const TOP_STOREY_M = 2.6;
const LEAST_M = 1.6;

function signed(metres: number): string {
  return `${Math.abs(metres) < 0.005 ? "±" : metres < 0 ? "−" : "+"}${Math.abs(metres).toFixed(2)}`;
}

/** Rows from the top down, columns in the order of the disciplines, with counts. */
export function boardOf(federation: Federation) {
  const counts = new Map<string, number>();
  const used = new Set<number>();
  const usedLevels = new Set<number>();
  for (const model of federation.models) {
    if (!model.stands) continue;
    model.level.forEach((level, i) => {
      const discipline = model.discipline[i] ?? 0;
      const key = cellKey(level, discipline);
      counts.set(key, (counts.get(key) ?? 0) + 1);
      used.add(discipline);
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
        elevation: signed(level.elevation_m),
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
      elevation: "",
      elevationM: Number.NEGATIVE_INFINITY,
      heightM: LEAST_M,
      counts: countsOf(NO_LEVEL),
    });
  }
  const count = (visibility: Visibility, state: State): number => {
    const standing = new Set<number>();
    for (const model of federation.models) {
      if (model.stands)
        model.global_ids.forEach((_, i) => {
          standing.add(model.first + i);
        });
    }
    return resolve(federation, visibility).filter((s, i) => s === state && standing.has(i)).length;
  };
  return { columns, rows, count };
}

/** Set cells, and let components that differed from them follow their cell again. */
export function withCells(
  visibility: Visibility,
  federation: Federation,
  cells: readonly (readonly [number, number])[],
  state: State,
): Visibility {
  const keys = new Set(cells.map(([level, discipline]) => cellKey(level, discipline)));
  const next = new Map(visibility.cells);
  for (const key of keys) {
    if (state === "shown") next.delete(key);
    else next.set(key, state);
  }
  const components = new Map(visibility.components);
  for (const model of federation.models) {
    model.level.forEach((level, i) => {
      if (keys.has(cellKey(level, model.discipline[i] ?? 0))) components.delete(model.first + i);
    });
  }
  return { cells: next, components };
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
