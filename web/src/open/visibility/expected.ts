import type { Federation, Shapes } from "../../api/client";
import { numberingOf } from "../numbering";

type Rule = Shapes["Rule"];
type Selector = Rule["select"];

/** States as they lie in an answer: a byte for each component. */
export const [HIDDEN, FADED, SHOWN] = [0, 1, 2] as const;
const STATE = { hide: HIDDEN, fade: FADED, show: SHOWN, only: SHOWN, fade_rest: SHOWN } as const;

/** Which components a selector selects, for what the page has tables for; null for anything else. */
function members(federation: Federation, select: Selector): Uint8Array | null {
  const out = new Uint8Array(numberingOf(federation).count);
  switch (select.kind) {
    case "all":
      return out.fill(1);
    case "these":
      for (const n of numberingOf(federation).numbersOf(select)) out[n] = 1;
      return out;
    case "all_but": {
      const rest = members(federation, select.of);
      return rest?.map((member) => 1 - member) ?? null;
    }
    case "both":
    case "either": {
      const parts = select.of.map((part) => members(federation, part));
      if (!parts.length || parts.some((part) => part === null)) return null;
      const wanted = select.kind === "both" ? parts.length : 1;
      return out.map((_, n) => (parts.filter((part) => part?.[n]).length >= wanted ? 1 : 0));
    }
    case "where":
      return null;
    case "of": {
      const { what, value } = select;
      if (what !== "level" && what !== "discipline") return null;
      const index =
        what === "level"
          ? federation.levels.findIndex((level) => level.name === value)
          : federation.disciplines.findIndex((d) => d.code === value);
      if (index < 0 && value !== "") return null;
      for (const model of federation.models)
        model[what].forEach((at, i) => {
          if (at === index) out[model.first + i] = 1;
        });
      return out;
    }
  }
}

/**
 * What the next frame may show of one more rule, until the core has answered; null where the page has no table
 * for what it is about.
 */
export function expected(federation: Federation, states: Uint8Array, rule: Rule): Uint8Array | null {
  if (rule.off) return states;
  if (rule.effect === "tint" || states.length !== numberingOf(federation).count) return null;
  const wanted = members(federation, rule.select);
  if (!wanted) return null;
  const state = STATE[rule.effect];
  const most = rule.effect === "only" ? HIDDEN : rule.effect === "fade_rest" ? FADED : SHOWN;
  const out = states.map((was, n) => (wanted[n] ? state : Math.min(was, most)));
  for (const model of federation.models)
    if (!model.stands) out.fill(HIDDEN, model.first, model.first + model.global_ids.length);
  return out;
}
