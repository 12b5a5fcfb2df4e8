import { perProject } from "../perProject";
import type { Draft } from "./conditions";

export const QUANTITIES = ["length", "area", "volume"] as const;

interface Register {
  drafts: readonly Draft[];
  /** The set that the conditions were taken from. */
  set: { id: string; name: string } | null;
  steps: readonly string[];
  sums: readonly string[];
  /** What is said beside each component. */
  columns: readonly string[];
  /** Which groups are open, by their keys. */
  open: readonly string[];
  put(part: Partial<Omit<Register, "put" | "turn">>): void;
  turn(key: string): void;
}

/** What the register lists: which components, grouped by what, and which groups are open. */
export const useRegister = perProject<Register>((set) => ({
  drafts: [],
  set: null,
  steps: ["level", "class"],
  sums: [],
  columns: [],
  open: [],
  put: (part) => set(part),
  turn: (key) =>
    set(({ open }) => ({ open: open.includes(key) ? open.filter((k) => k !== key) : [...open, key] })),
}));
