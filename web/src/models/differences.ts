import type { Shapes } from "../api/client";
import { theseOf } from "../open/numbering";
import { withTints } from "../open/visibility/tints";
import type { Rule } from "../open/visibility/viewState";

export type Changes = Shapes["Changes"];
export type Kind = "added" | "removed" | "moved" | "reshaped" | "changed";

/**
 * What became of components, in the order in which it is listed, and as it is counted; the colours are told apart whatever
 * one sees.
 */
export const KINDS: readonly { kind: Kind; name: string; counted: string; colour: string }[] = [
  { kind: "added", name: "added", counted: "added", colour: "#117733" },
  { kind: "removed", name: "removed", counted: "removed", colour: "#882255" },
  { kind: "moved", name: "moved", counted: "moved", colour: "#ddcc77" },
  { kind: "reshaped", name: "Shape changed", counted: "with another shape", colour: "#cc6677" },
  { kind: "changed", name: "Properties changed", counted: "with other properties", colour: "#88ccee" },
];
/** In which colour what became of components is drawn. */
export function colourOf(kind: Kind): string {
  return KINDS.find((each) => each.kind === kind)?.colour ?? "";
}

const SAME = "#d8d3c8";

/** Rules that tint what differs, in place of the tints that there were; what is the same in its model recedes. */
export function tintedChanges(
  rules: readonly Rule[],
  model: string,
  changes: Changes,
  by: string,
  at: string,
): Rule[] {
  const differing = [...KINDS].reverse().flatMap(({ kind, name, colour }) => {
    const refs = changes[kind].map((each) => each.ref);
    // What is gone is drawn, not tinted: there is nothing of it in the building.
    return kind !== "removed" && refs.length ? [{ select: theseOf(refs), colour, why: name }] : [];
  });
  const same = {
    select: { kind: "of", what: "model", value: model },
    colour: SAME,
    why: "unchanged",
  } as const;
  return withTints(rules, [same, ...differing], by, at);
}

/** How much changed in each way, such as `1 added, 2 moved`; nothing where nothing did. */
export function counts(changes: Changes): string {
  return KINDS.flatMap(({ kind, counted }) =>
    changes[kind].length ? [`${changes[kind].length} ${counted}`] : [],
  ).join(", ");
}

/** What changes come to in a sentence. */
export function summed(changes: Changes): string {
  const differs = counts(changes);
  return differs ? `${differs}; ${changes.same} unchanged.` : `No differences: ${changes.same} unchanged.`;
}
