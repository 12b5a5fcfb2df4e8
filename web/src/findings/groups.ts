import type { Federation, Shapes } from "../api/client";
import { theseOf } from "../open/numbering";
import { pickedNow, useSelection } from "../open/selection";
import { type Rule, useViewState } from "../open/visibility/viewState";
import type { Offered } from "../parts/PickOne";
import { counted } from "../parts/words";

type ComponentSet = Shapes["ComponentSet"];
export type Group = Shapes["Check"]["a"];

export const PICKED = "picked";
export const VISIBLE = "visible";
export const ALL = "all";

/** What a check can be about, under headings. */
export function choicesOf(
  federation: Federation,
  systems: readonly string[],
  sets: readonly ComponentSet[],
): Offered[] {
  const used = new Set(federation.models.flatMap((m) => (m.stands ? m.discipline : [])));
  return [
    {
      label: "Now",
      of: [
        { value: PICKED, name: "the selection" },
        { value: VISIBLE, name: "what is visible" },
        { value: ALL, name: "everything" },
      ],
    },
    {
      label: "Disciplines",
      of: federation.disciplines.flatMap(({ code, name }, k) =>
        used.has(k) ? [{ value: `discipline:${code}`, name }] : [],
      ),
    },
    { label: "Sets", of: sets.map(({ id, name }) => ({ value: `set:${id}`, name })) },
    { label: "Systems", of: systems.map((value) => ({ value: `system:${value}`, name: value })) },
    { label: "Levels", of: federation.levels.map(({ name }) => ({ value: `level:${name}`, name })) },
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
