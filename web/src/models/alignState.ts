import type { ModelCard, Shapes } from "../api/client";
import { perProject } from "../open/perProject";

type Point = [number, number, number];

interface Aligning {
  /** The model that is being aligned by two of its points, and the points picked so far, about the origin. */
  modelId: string | null;
  /** Where it stood when the first was to be picked; where it was put elsewhere since, they mean nothing. */
  placed: string;
  points: readonly Point[];
  begin(modelId: string, placed: string): void;
  add(point: Point): void;
  /** What was picked lies so much further: it is counted from another origin. */
  rebase(by: readonly number[]): void;
  stop(): void;
}

/** Two points of a model, on their way to be given their places. */
export const useAligning = perProject<Aligning>((set) => ({
  modelId: null,
  placed: "",
  points: [],
  begin: (modelId, placed) => set({ modelId, placed, points: [] }),
  add: (point) => set((s) => (s.modelId ? { points: [...s.points, point].slice(0, 2) } : {})),
  rebase: (by) =>
    set((s) => ({
      points: s.points.map(([x, y, z]) => [x + (by[0] ?? 0), y + (by[1] ?? 0), z + (by[2] ?? 0)]),
    })),
  stop: () => set({ modelId: null, points: [] }),
}));

/** Where a model stands, as a text to compare. */
export function placeOf(model: ModelCard): string {
  return `${model.rotation_deg} ${model.shift_m?.join(" ")}`;
}

/** What somebody said of a model's alignment, as it can be said again. */
export function wishOf(model: ModelCard): Shapes["AlignmentRequest"] {
  const hand = model.aligned_set === "hand";
  return {
    by: model.aligned_set,
    rotation_deg: hand ? (model.rotation_deg ?? 0) : 0,
    shift_m: hand ? (model.shift_m ?? [0, 0, 0]) : [0, 0, 0],
  };
}
