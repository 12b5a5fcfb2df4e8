import { perProject } from "./perProject";

interface Pointing {
  /** Where the cross is on the stage, px from its top left; null while nobody points with the keys. */
  at: { x: number; y: number } | null;
  /** The button that the cross holds down. */
  held: 0 | 2 | null;
  put(part: Partial<Pick<Pointing, "at" | "held">>): void;
}

/** Pointing at the stage with the keys: a cross that is moved, clicks and drags as a mouse does. */
export const usePointing = perProject<Pointing>((set) => ({
  at: null,
  held: null,
  put: (part) => set(part),
}));
