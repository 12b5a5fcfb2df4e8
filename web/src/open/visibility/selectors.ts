import type { Federation, Shapes } from "../../api/client";

/** What a rule is about. */
export type Selector = Shapes["Rule"]["select"];

/** Components of a level, a discipline and a system; fewer of them where the others are not given. */
export function cellOf(
  federation: Federation,
  level: number | null,
  discipline: number | null,
  system: string | null = null,
): Selector {
  const parts: Extract<Selector, { kind: "both" }>["of"] = [];
  if (level !== null) parts.push({ kind: "of", what: "level", value: federation.levels[level]?.name ?? "" });
  if (discipline !== null)
    parts.push({ kind: "of", what: "discipline", value: federation.disciplines[discipline]?.code ?? "" });
  if (system !== null) parts.push({ kind: "of", what: "system", value: system });
  return parts.length === 1 && parts[0] ? (parts[0] as Selector) : { kind: "both", of: parts };
}
