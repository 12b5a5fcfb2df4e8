import { perProject } from "./perProject";

/** Of which model what is gone is meant, against what, as `issue:` or `other:` and its id, and how that is called. */
export interface GoneFrom {
  model: string;
  against: string;
  called: string;
}

interface Compared {
  /** What each model is compared with, by its id, until it is compared with something else. */
  against: Readonly<Record<string, string>>;
  from: GoneFrom | null;
  compare(model: string, against: string): void;
  show(from: GoneFrom | null): void;
}

/** What models are compared with, and what an older issue had, drawn on the stage until it is put away. */
export const useCompared = perProject<Compared>((set) => ({
  against: {},
  from: null,
  compare: (model, against) => set((s) => ({ against: { ...s.against, [model]: against } })),
  show: (from) => set({ from }),
}));
