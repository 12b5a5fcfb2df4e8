import type { Federation, Shapes } from "../api/client";
import { theseOf } from "../open/numbering";
import { pickedNow, useSelection } from "../open/selection";
import { type Rule, useViewState } from "../open/visibility/viewState";
import { counted } from "../parts/words";

type ComponentSet = Shapes["ComponentSet"];
export type Group = Shapes["Check"]["a"];

/** A choice of what one side of a check has. */
export interface Choice {
  key: string;
  words: string;
}

export const PICKED = "picked";
export const VISIBLE = "visible";
export const ALL = "all";

/** What a check can be about, under headings. */
export function choicesOf(
  federation: Federation,
  systems: readonly string[],
  sets: readonly ComponentSet[],
): readonly (readonly [string, readonly Choice[]])[] {
  const used = new Set(federation.models.flatMap((m) => (m.stands ? m.discipline : [])));
  return [
    [
      "Now",
      [
        { key: PICKED, words: "the selection" },
        { key: VISIBLE, words: "what is visible" },
        { key: ALL, words: "everything" },
      ],
    ],
    [
      "Disciplines",
      federation.disciplines.flatMap(({ code, name }, k) =>
        used.has(k) ? [{ key: `discipline:${code}`, words: name }] : [],
      ),
    ],
    ["Sets", sets.map(({ id, name }) => ({ key: `set:${id}`, words: name }))],
    ["Systems", systems.map((value) => ({ key: `system:${value}`, words: value }))],
    ["Levels", federation.levels.map(({ name }) => ({ key: `level:${name}`, words: name }))],
  ];
}

/** The group that a choice means now; null where nothing is picked, or the set is gone. */
export function groupOf(federation: Federation, key: string, sets: readonly ComponentSet[]): Group | null {
  if (key === PICKED) {
    const { refs } = useSelection.getState();
    if (!pickedNow().length) return null;
    return { select: theseOf(refs), rules: [], called: counted(refs.length, "selected component") };
  }
  if (key === VISIBLE)
    return { select: null, rules: useViewState.getState().rules as Rule[], called: "what was visible" };
  if (key === ALL) return { select: { kind: "all" }, rules: [], called: "everything" };
  const at = key.indexOf(":");
  const [what, value] = [key.slice(0, at), key.slice(at + 1)];
  if (what === "set") {
    const set = sets.find(({ id }) => id === value);
    return (
      (set && {
        select: { kind: "where", of: set.conditions, called: set.name },
        rules: [],
        called: set.name,
      }) ??
      null
    );
  }
  if (what !== "discipline" && what !== "system" && what !== "level") return null;
  const called =
    what === "discipline" ? (federation.disciplines.find((d) => d.code === value)?.name ?? value) : value;
  return { select: { kind: "of", what, value }, rules: [], called };
}
