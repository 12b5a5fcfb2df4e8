import type { ComponentRef, Federation } from "../api/client";
import { type Numbering, numberingOf } from "./numbering";
import { perProject } from "./perProject";

interface Selection {
  numbering: Numbering | null;
  /** What is picked, by names that outlive a version of the federation. */
  refs: readonly ComponentRef[];
  /** The same by the numbers of the present version, without what it does not have. */
  picked: readonly number[];
  pick(components: readonly number[]): void;
  /** Go on with another version of the federation. */
  follow(federation: Federation): void;
}

/** What is picked. */
export const useSelection = perProject<Selection>((set) => ({
  numbering: null,
  refs: [],
  picked: [],
  pick: (picked) =>
    set(({ numbering }) => ({
      picked,
      refs: picked.flatMap((component) => numbering?.refOf(component) ?? []),
    })),
  follow: (federation) =>
    set(({ refs }) => {
      const numbering = numberingOf(federation);
      const picked = refs.map((ref) => numbering.numberOf(ref.model, ref.global_id)).filter((n) => n >= 0);
      return { numbering, picked };
    }),
}));

export function pickedNow(): readonly number[] {
  return useSelection.getState().picked;
}
