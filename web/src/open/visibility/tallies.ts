import type { Federation } from "../../api/client";
import { FADED, HIDDEN } from "./expected";

export const NO_LEVEL = -1;

export function cellKey(level: number, column: number): string {
  return `${level}/${column}`;
}

/** In which column of the board a component stands, by its dense number and its discipline; below zero in none. */
export type ColumnOf = (component: number, discipline: number) => number;
export const byDiscipline: ColumnOf = (_, discipline) => discipline;

/** How many components of a cell there are, and how many of them are shown, faded and hidden. */
export interface Tally {
  there: number;
  shown: number;
  faded: number;
  hidden: number;
}

/** What of each cell is shown, by the states of all components; models that do not stand do not count. */
export function tallies(
  federation: Federation,
  states: Uint8Array,
  columnOf: ColumnOf = byDiscipline,
): Map<string, Tally> {
  const found = new Map<string, Tally>();
  for (const model of federation.models) {
    if (!model.stands) continue;
    model.level.forEach((level, i) => {
      const column = columnOf(model.first + i, model.discipline[i] ?? 0);
      if (column < 0) return;
      const key = cellKey(level, column);
      const tally = found.get(key) ?? { there: 0, shown: 0, faded: 0, hidden: 0 };
      const state = states[model.first + i];
      tally.there += 1;
      if (state === HIDDEN) tally.hidden += 1;
      else if (state === FADED) tally.faded += 1;
      else tally.shown += 1;
      found.set(key, tally);
    });
  }
  return found;
}

/** The sum of cells. */
export function together(cells: Iterable<Tally | undefined>): Tally {
  const sum = { there: 0, shown: 0, faded: 0, hidden: 0 };
  for (const cell of cells) {
    if (!cell) continue;
    sum.there += cell.there;
    sum.shown += cell.shown;
    sum.faded += cell.faded;
    sum.hidden += cell.hidden;
  }
  return sum;
}
