import { create } from "zustand";
import type { Federation } from "../api/client";
import type { State } from "../stage/states";

export const NO_LEVEL = -1;

export type DeskTask = "component" | "viewpoints" | "routes" | "models";

/** What is shown: cells of the storey board, and components that differ from their cell. */
export interface Visibility {
  cells: ReadonlyMap<string, State>;
  components: ReadonlyMap<number, State>;
}

export function cellKey(level: number, discipline: number): string {
  return `${level}/${discipline}`;
}

export const ALL_SHOWN: Visibility = { cells: new Map(), components: new Map() };

/** The state of every component: its own, else its cell's; alternatives that do not stand are hidden. */
export function resolve(federation: Federation, visibility: Visibility): State[] {
  const out: State[] = [];
  for (const model of federation.models) {
    for (let i = 0; i < model.global_ids.length; i++) {
      if (!model.stands) {
        out.push("hidden");
        continue;
      }
      const own = visibility.components.get(model.first + i);
      out.push(
        own ?? visibility.cells.get(cellKey(model.level[i] ?? NO_LEVEL, model.discipline[i] ?? 0)) ?? "shown",
      );
    }
  }
  return out;
}

/** The model and the place in it of a component's dense number. */
export function find(federation: Federation, component: number) {
  for (const model of federation.models) {
    const at = component - model.first;
    if (at >= 0 && at < model.global_ids.length) return { model, at, globalId: model.global_ids[at] ?? "" };
  }
  return null;
}

/** The dense number of a component known by model and GlobalId, or -1. */
export function numberOf(federation: Federation, modelId: string, globalId: string): number {
  const model = federation.models.find((m) => m.id === modelId);
  const at = model ? model.global_ids.indexOf(globalId) : -1;
  return model && at >= 0 ? model.first + at : -1;
}

interface Session {
  visibility: Visibility;
  past: Visibility[];
  picked: readonly number[];
  task: DeskTask;
  folded: { board: boolean; desk: boolean };
  notice: { text: string; undo?: () => void } | null;
  /** How far the view sees beyond its target; null for no limit. */
  depthLimitM: number | null;
  limitDepth(metres: number | null): void;
  see(next: Visibility): void;
  undo(): void;
  pick(components: readonly number[]): void;
  open(task: DeskTask): void;
  fold(part: "board" | "desk", folded: boolean): void;
  say(text: string, undo?: () => void): void;
  hush(): void;
  reset(): void;
}

/** Do something that can go wrong, and say so in its own sentence if it does. */
export async function orAloud(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    if (error instanceof Error) useSession.getState().say(error.message);
  }
}

const MOST_UNDO = 100;
const fresh = { visibility: ALL_SHOWN, past: [], picked: [], notice: null, depthLimitM: null };

/** What this browser tab is about right now; nothing here belongs to the server. */
export const useSession = create<Session>((set) => ({
  ...fresh,
  task: "component",
  folded: { board: false, desk: false },
  see: (next) => set((s) => ({ visibility: next, past: [...s.past, s.visibility].slice(-MOST_UNDO) })),
  undo: () =>
    set((s) => {
      const last = s.past.at(-1);
      return last ? { visibility: last, past: s.past.slice(0, -1) } : {};
    }),
  limitDepth: (depthLimitM) => set({ depthLimitM }),
  pick: (picked) => set({ picked }),
  open: (task) => set((s) => ({ task, folded: { ...s.folded, desk: false } })),
  fold: (part, folded) => set((s) => ({ folded: { ...s.folded, [part]: folded } })),
  say: (text, undo) => set({ notice: undo ? { text, undo } : { text } }),
  hush: () => set({ notice: null }),
  reset: () => set(fresh),
}));
