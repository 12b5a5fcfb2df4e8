import type { Aim, Tool } from "../stage/tools/tool";
import { perProject } from "./perProject";
import { useSession } from "./session";

/** What is to be changed: the lens, where the eye looks, how high it is, in what lengths are read, how all is drawn, who is there. */
export type Panel = "lens" | "look" | "eye" | "units" | "drawing" | "people";

/** What is said to who tries to move in a locked view. */
export const LOCKED = "The view is locked. Unlock it to move.";

interface Tools {
  /** What is in hand, until it is put away. */
  tool: Tool | null;
  locked: boolean;
  keysShown: boolean;
  /** The panel over the readouts that is open. */
  panel: Panel | null;
  /** Counts how often the find box was asked for. */
  findAsked: number;
  take(tool: Tool | null): void;
  /** Put away what is in hand, with what it said of clicks that missed. */
  putAway(): void;
  lock(locked: boolean): void;
  showKeys(shown: boolean): void;
  showPanel(panel: Panel | null): void;
  openFind(): void;
}

export const useTools = perProject<Tools>((set, get) => ({
  tool: null,
  locked: false,
  keysShown: false,
  panel: null,
  findAsked: 0,
  take: (tool) => {
    const before = get().tool;
    set({ tool });
    if (before !== tool) before?.cancel?.();
  },
  putAway: () => {
    if (get().tool) useSession.getState().hush();
    get().take(null);
  },
  lock: (locked) => {
    set({ locked });
    // What was refused for it can be done now.
    if (!locked && useSession.getState().notice?.text === LOCKED) useSession.getState().hush();
  },
  showKeys: (keysShown) => set({ keysShown }),
  showPanel: (panel) => set({ panel }),
  openFind: () => set((s) => ({ findAsked: s.findAsked + 1 })),
}));

/** A tool that takes points of the building, until it has what it needs. */
export function pointTool(
  about: Pick<Tool, "name" | "prompt" | "exact" | "takes" | "bound" | "cancel">,
  use: (aim: Aim) => "done" | "more",
): Tool {
  return {
    ...about,
    click: (aim) => {
      if (!aim)
        return useSession.getState().say("Nothing is there. Click the building, or press Esc to cancel.");
      if (use(aim) === "done") useTools.getState().take(null);
    },
  };
}
