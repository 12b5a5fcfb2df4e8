import { create } from "zustand";
import type { ModelCard, Shapes } from "../api/client";

type Point = [number, number, number];

interface Aligning {
  /** The model that is being aligned by two of its points, and the points picked so far, about the origin. */
  modelId: string | null;
  points: readonly Point[];
  begin(modelId: string): void;
  add(point: Point): void;
  stop(): void;
}

/** Two points of a model, on their way to be given their places. */
export const useAligning = create<Aligning>((set) => ({
  modelId: null,
  points: [],
  begin: (modelId) => set({ modelId, points: [] }),
  add: (point) => set((s) => (s.modelId ? { points: [...s.points, point].slice(0, 2) } : {})),
  stop: () => set({ modelId: null, points: [] }),
}));

/** What somebody said of a model's alignment, as it can be said again. */
export function wishOf(model: ModelCard): Shapes["AlignmentWish"] {
  const hand = model.aligned_set === "hand";
  return {
    by: model.aligned_set,
    rotation_deg: hand ? (model.rotation_deg ?? 0) : 0,
    shift_m: hand ? (model.shift_m ?? [0, 0, 0]) : [0, 0, 0],
  };
}
