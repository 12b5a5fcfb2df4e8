import { create } from "zustand";

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
