import type { Federation } from "../../api/client";
import { find } from "../numbering";

/** The codes of the disciplines of components, one for each of them that has one. */
export function disciplinesOf(federation: Federation, numbers: readonly number[]): string[] {
  return numbers.flatMap((number) => {
    const found = find(federation, number);
    const discipline = found && federation.disciplines[found.model.discipline[found.at] ?? -1];
    return discipline ? [discipline.code] : [];
  });
}
