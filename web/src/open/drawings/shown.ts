import type { Pose } from "../../stage/pose";
import type { Stage } from "../../stage/stage";
import type { DrawingKind } from "../../stage/view";
import { perProject } from "../perProject";
import type { Drawing } from "./drawing";

/** What is drawn beside the stage, in one drawing or in two, the one above the other; null for one that is not open. */
interface Beside extends Record<DrawingKind, Drawing | null> {
  open(kind: DrawingKind, drawing: Drawing): void;
  close(kind: DrawingKind): void;
}

/** Which drawings stand beside the stage. */
export const useBeside = perProject<Beside>((set) => ({
  drawing: null,
  second: null,
  open: (kind, drawing) => set({ [kind]: drawing }),
  close: (kind) => set({ [kind]: null }),
}));

export function drawingShown(kind: DrawingKind): Drawing | null {
  return useBeside.getState()[kind];
}

/** Show a drawing as it is seen from a pose. */
export function showDrawing(
  stage: Stage,
  kind: DrawingKind,
  drawing: Drawing,
  pose: Pose,
  atOnce = false,
): void {
  useBeside.getState().open(kind, drawing);
  stage.goDrawing(kind, pose, atOnce);
}
