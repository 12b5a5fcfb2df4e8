import { createContext, useContext } from "react";
import { create } from "zustand";
import type { Federation } from "../api/client";
import type { Pose } from "../stage/pose";
import type { Stage } from "../stage/stage";

/** The stage of the open project, and the last thing it said about itself. */
interface StageNews {
  pending: number;
  total: number;
  failed: readonly string[];
  hovered: number;
  hoverAt: { x: number; y: number } | null;
  /** The region that is being drawn, in pixels of the canvas. */
  region: { x: number; y: number; width: number; height: number } | null;
}

export const useStageNews = create<StageNews>(() => ({
  pending: 0,
  total: 0,
  failed: [],
  hovered: -1,
  hoverAt: null,
  region: null,
}));

type Listener = (pose: Pose) => void;

/** Tells components about the eye without rendering React at every frame. */
export class EyeNews {
  private readonly listeners = new Set<Listener>();
  last: Pose | null = null;

  tell(pose: Pose): void {
    this.last = pose;
    for (const listener of this.listeners) listener(pose);
  }

  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    if (this.last) listener(this.last);
    return () => this.listeners.delete(listener);
  }
}

export interface Open {
  federation: Federation;
  stage: () => Stage | null;
  eye: EyeNews;
  projectId: string;
}

export const OpenContext = createContext<Open | null>(null);

export function useOpen(): Open {
  const open = useContext(OpenContext);
  if (!open) throw new Error("outside an open project");
  return open;
}
