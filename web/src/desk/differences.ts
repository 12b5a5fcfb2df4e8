import type { Shapes } from "../api/client";
import { theseOf } from "../open/numbering";
import type { Rule } from "../open/seen";
import { withTints } from "../seen/tints";

export type Changes = Shapes["Changes"];
export type Kind = "added" | "removed" | "moved" | "reshaped" | "changed";

/** What became of components, in the order in which it is listed; the colours are told apart whatever one sees. */
export const KINDS: readonly { kind: Kind; name: string; colour: string }[] = [
  { kind: "added", name: "added", colour: "#117733" },
  { kind: "removed", name: "removed", colour: "" },
  { kind: "moved", name: "moved", colour: "#ddcc77" },
  { kind: "reshaped", name: "of another shape", colour: "#cc6677" },
  { kind: "changed", name: "otherwise described", colour: "#88ccee" },
];
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
    return colour && refs.length ? [{ select: theseOf(refs), colour, why: name }] : [];
  });
  const same = {
    select: { kind: "of", what: "model", value: model },
    colour: SAME,
    why: "the same as before",
  } as const;
  return withTints(rules, [same, ...differing], by, at);
}

/** What changes come to in a sentence. */
export function summed(changes: Changes): string {
  const parts = KINDS.flatMap(({ kind, name }) =>
    changes[kind].length ? [`${changes[kind].length} ${name}`] : [],
  );
  return parts.length
    ? `${parts.join(", ")}; ${changes.same} the same.`
    : `Nothing differs: ${changes.same} the same.`;
}
