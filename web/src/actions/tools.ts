import { create } from "zustand";

/** A tool in hand that takes clicks or drags on the stage until it is put away. */
export type Tool = "region" | "pin" | "jump" | "through" | "from" | "to" | "align";

interface Tools {
  tool: Tool | null;
  locked: boolean;
  keysShown: boolean;
  /** Counts how often the find box was asked for. */
  findAsked: number;
  take(tool: Tool | null): void;
  lock(locked: boolean): void;
  showKeys(shown: boolean): void;
  openFind(): void;
  /** Leave nothing in hand for the next project. */
  putAway(): void;
}

export const useTools = create<Tools>((set) => ({
  tool: null,
  locked: false,
  keysShown: false,
  findAsked: 0,
  take: (tool) => set({ tool }),
  lock: (locked) => set({ locked }),
  showKeys: (keysShown) => set({ keysShown }),
  putAway: () => set({ tool: null, locked: false, keysShown: false }),
  openFind: () => set((s) => ({ findAsked: s.findAsked + 1 })),
}));
