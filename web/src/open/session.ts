import { perProject } from "./perProject";

export const NO_LEVEL = -1;

export type DeskTask =
  | "component"
  | "register"
  | "cuts"
  | "measures"
  | "markups"
  | "findings"
  | "viewpoints"
  | "topics"
  | "routes"
  | "models";

interface Session {
  task: DeskTask;
  folded: { board: boolean; desk: boolean };
  /** All but the stage is away, until asked for again. */
  bare: boolean;
  /** What just happened, with a way back where there is one; one that is not called Undo has no other place, so it stays. */
  notice: { text: string; undo?: () => void; called?: string; stays: boolean } | null;
  open(task: DeskTask): void;
  fold(part: "board" | "desk", folded: boolean): void;
  /** Take the task up where a click on the stage means it; a stage that stands alone stays so. */
  turnTo(task: DeskTask): void;
  setBare(bare: boolean): void;
  say(text: string, undo?: () => void, called?: string): void;
  hush(): void;
}

/** Do something that can go wrong, and say so in its own sentence if it does; whether it was done. */
export async function withErrorNotice(work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work();
    return true;
  } catch (error) {
    if (error instanceof Error) useSession.getState().say(error.message);
    return false;
  }
}

const UNDO = "Undo";

/** What this page of the open project is about right now; nothing here belongs to the server. */
export const useSession = perProject<Session>(
  (set) => ({
    notice: null,
    task: "component",
    folded: { board: false, desk: false },
    bare: false,
    open: (task) => set((s) => ({ task, bare: false, folded: { ...s.folded, desk: false } })),
    turnTo: (task) => set((s) => ({ task, folded: { ...s.folded, desk: s.bare && s.folded.desk } })),
    setBare: (bare) => set({ bare }),
    fold: (part, folded) => set((s) => ({ folded: { ...s.folded, [part]: folded } })),
    say: (text, undo, called = UNDO) =>
      set({ notice: undo ? { text, undo, called, stays: called !== UNDO } : { text, stays: false } }),
    hush: () => set({ notice: null }),
  }),
  { name: "desk", part: ({ task, folded, bare }) => ({ task, folded, bare }) },
);
