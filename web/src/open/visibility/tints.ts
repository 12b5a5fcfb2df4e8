import type { Shapes } from "../../api/client";
import { usePerson } from "../../api/person";
import type { Selector } from "./selectors";
import { type Rule, useViewState } from "./viewState";

/** Told apart in the common forms of colour blindness: the muted scheme of P. Tol, Colour Schemes (SRON, 2021). */
export const TINTS = [
  "#88ccee", "#cc6677", "#ddcc77", "#117733", "#332288", "#aa4499", "#44aa99", "#999933", "#882255",
] as const; // biome-ignore format: one row of colours
/** The tint by the file's own colours, as the core names it. */
export const MATERIALS = "materials";
/** What is not among the largest groups. */
const REST = "#c9c2b4";

export interface Tinted {
  name: string;
  select: Selector;
  count: number;
}

/** A tint before it is a rule. */
interface Tint {
  select: Selector;
  colour: string;
  why: string;
}

/** Rules with tints in place of those that there were, later ones over earlier ones. */
export function withTints(rules: readonly Rule[], tints: readonly Tint[], by: string, at: string): Rule[] {
  return [
    ...rules.filter(({ effect }) => effect !== "tint"),
    ...tints.map<Rule>((tint) => ({ ...tint, effect: "tint", by, at, off: false })),
  ];
}

/** Change the tints as one change: rules are made of those there are, by whom, and when. */
export function retint(
  name: string,
  made: (rules: readonly Rule[], by: string, at: string) => readonly Rule[],
): void {
  const { rules, change } = useViewState.getState();
  change({ rules: made(rules, usePerson.getState().name, new Date().toISOString()) }, name);
}

/** Rules that give each of the largest groups a colour, and the rest another one, in place of tints that there were. */
export function tintedBy(
  rules: readonly Rule[],
  groups: readonly Tinted[],
  of: Selector,
  by: string,
  at: string,
): Rule[] {
  const largest = [...groups].sort((a, b) => b.count - a.count).slice(0, TINTS.length);
  // The largest stand in the order of the list, so that a legend reads as it does.
  const those = groups.filter((group) => largest.includes(group));
  const tints = those.map(({ name, select }, k) => ({ select, colour: TINTS[k] ?? REST, why: name }));
  const rest = groups.length > those.length ? [{ select: of, colour: REST, why: "the rest" }] : [];
  return withTints(rules, [...rest, ...tints], by, at);
}

/** Tint groups, as one change. */
export function tint(groups: readonly Tinted[], of: Selector, name: string): void {
  retint(name, (rules, by, at) => tintedBy(rules, groups, of, by, at));
}

/** From few to many, each lighter than the one before whatever one sees (viridis, S. van der Walt and N. Smith, 2015). */
export const STEPS = ["#440154", "#414487", "#2a788e", "#22a884", "#7ad151", "#fde725"] as const;

/** Rules that tint figures by their steps, so that a later step has what lies on a limit; in place of other tints. */
export function tintedByScale(
  rules: readonly Rule[],
  { steps, what, unit }: Shapes["Scale"],
  says: (figure: number) => string,
  by: string,
  at: string,
): Rule[] {
  const colourOf = (k: number) =>
    STEPS[Math.round((k * (STEPS.length - 1)) / Math.max(1, steps.length - 1))] ?? REST;
  const tints = steps.map<Tint>(({ low, high }, k) => ({
    select: {
      kind: "where",
      of: [
        low === high
          ? { what, how: "equal", value: low, unit }
          : { what, how: "between", value: [low, high], unit },
      ],
      called: "",
    },
    colour: colourOf(k),
    why: low === high ? says(low) : `${says(low)} to ${says(high)}`,
  }));
  return withTints(rules, [{ select: { kind: "all" }, colour: REST, why: "no value" }, ...tints], by, at);
}

/** Back to the disciplines' colours. */
export function tradeColours(): void {
  retint("took all tints off", (rules, by, at) => withTints(rules, [], by, at));
}

/** The colours that the files give to surfaces and materials, in place of every tint. */
export function materialColours(): void {
  retint("showed the Material colours colours", (rules, by, at) =>
    withTints(rules, [{ select: { kind: "all" }, colour: MATERIALS, why: "" }], by, at),
  );
}
