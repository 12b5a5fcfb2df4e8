import { createContext, useContext } from "react";
import type { Vector3 } from "three";
import type { Federation } from "../api/client";
import type { Boxing } from "../stage/geometry/boxed";
import type { SnapKind } from "../stage/geometry/snapping";
import type { Pose } from "../stage/pose";
import type { Stage } from "../stage/stage";
import type { DrawingKind, Rectangle, ViewKind } from "../stage/view";
import { perProject } from "./perProject";

/** The stage of the open project, and the last thing it said about itself. */
interface StageNews {
  pending: number;
  total: number;
  failed: readonly string[];
  hovered: number;
  /** What kind of point a click would catch, with a tool for exact points. */
  caught: SnapKind | null;
  /** Where the cursor is that hovers, in pixels of the view it is in. */
  hoverAt: { x: number; y: number; where: ViewKind } | null;
  /** The region that is being drawn, in pixels of its view. */
  region: (Rectangle & { where: ViewKind; how?: Boxing }) | null;
  /** Where a wall kept the eye in its room. */
  keptAt: Vector3 | null;
}

export const useStageNews = perProject<StageNews>(() => ({
  pending: 0,
  total: 0,
  failed: [],
  hovered: -1,
  caught: null,
  hoverAt: null,
  region: null,
  keptAt: null,
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

  /** What was told is no longer so. */
  forget(): void {
    this.last = null;
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
  /** The eyes of the drawings beside the stage. */
  drawn: Readonly<Record<DrawingKind, EyeNews>>;
  projectId: string;
}

export const OpenContext = createContext<Open | null>(null);

export function useOpen(): Open {
  const open = useContext(OpenContext);
  if (!open) throw new Error("outside an open project");
  return open;
}
