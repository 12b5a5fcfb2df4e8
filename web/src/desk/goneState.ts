import { perProject } from "../open/perProject";

/** Of which model what is gone is meant, against what, as `issue:` or `other:` and its id, and how that is called. */
export interface GoneFrom {
  model: string;
  against: string;
  called: string;
}

interface GoneShown {
  from: GoneFrom | null;
  show(from: GoneFrom | null): void;
}

/** What an older issue had, drawn on the stage until it is put away. */
export const useGone = perProject<GoneShown>((set) => ({
  from: null,
  show: (from) => set({ from }),
}));
