import type { Shapes } from "../api/client";
import { type Rule, useSeen } from "../open/seen";
import type { Selector } from "../open/selectors";
import { usePerson } from "../people/person";

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

/** Rules that give each of the largest groups a colour, and the rest another one, in place of tints that there were. */
export function tintedBy(
  rules: readonly Rule[],
  groups: readonly Tinted[],
  of: Selector,
  by: string,
  at: string,
) {
  const largest = [...groups].sort((a, b) => b.count - a.count).slice(0, TINTS.length);
  const rule = (select: Selector, colour: string, why: string): Rule => ({
    select,
    effect: "tint",
    colour,
    by,
    at,
    why,
    off: false,
  });
  // The largest stand in the order of the list, so that a legend reads as it does.
  const those = groups.filter((group) => largest.includes(group));
  return [
    ...rules.filter(({ effect }) => effect !== "tint"),
    ...(groups.length > those.length ? [rule(of, REST, "the rest")] : []),
    ...those.map(({ name, select }, k) => rule(select, TINTS[k] ?? REST, name)),
  ];
}

/** Tint groups, as one change. */
export function tint(groups: readonly Tinted[], of: Selector, name: string): void {
  const { rules, change } = useSeen.getState();
  const at = new Date().toISOString();
  change({ rules: tintedBy(rules, groups, of, usePerson.getState().name, at) }, name);
}

/** From few to many, each lighter than the one before whatever one sees (viridis, S. van der Walt and N. Smith, 2015). */
export const STEPS = ["#440154", "#414487", "#2a788e", "#22a884", "#7ad151", "#fde725"] as const;

/** Rules that tint figures by their steps, so that a later step has what lies on a limit; in place of other tints. */
export function tintedByScale(
  rules: readonly Rule[],
  scale: Shapes["Scale"],
  says: (figure: number) => string,
  by: string,
  at: string,
): Rule[] {
  const { steps, what, unit } = scale;
  const colourOf = (k: number) =>
    STEPS[Math.round((k * (STEPS.length - 1)) / Math.max(1, steps.length - 1))] ?? REST;
  return [
    ...rules.filter(({ effect }) => effect !== "tint"),
    { select: { kind: "all" }, effect: "tint", colour: REST, by, at, why: "without a figure", off: false },
    ...steps.map<Rule>(({ low, high }, k) => ({
      select: {
        kind: "where",
        of: [
          low === high
            ? { what, how: "equal", value: low, unit }
            : { what, how: "between", value: [low, high], unit },
        ],
        called: "",
      },
      effect: "tint",
      colour: colourOf(k),
      by,
      at,
      why: low === high ? says(low) : `${says(low)} to ${says(high)}`,
      off: false,
    })),
  ];
}

/** Back to the trades' colours. */
export function tradeColours(): void {
  const { rules, change } = useSeen.getState();
  change({ rules: rules.filter(({ effect }) => effect !== "tint") }, "took all tints off");
}

/** The colours that the files give to surfaces and materials, in place of every tint. */
export function materialColours(): void {
  const { rules, change } = useSeen.getState();
  const rule: Rule = {
    select: { kind: "all" },
    effect: "tint",
    colour: MATERIALS,
    by: usePerson.getState().name,
    at: new Date().toISOString(),
    why: "",
    off: false,
  };
  const rest = rules.filter(({ effect }) => effect !== "tint");
  change({ rules: [...rest, rule] }, "showed the materials' own colours");
}
