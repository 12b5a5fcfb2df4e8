import type { Pose } from "../../stage/pose";
import type { Stage } from "../../stage/stage";
import { perProject } from "../perProject";
import type { Drawing } from "./drawing";

interface Beside {
  /** What is drawn beside the stage; null while nothing is. */
  drawing: Drawing | null;
  open(drawing: Drawing): void;
  close(): void;
}

/** Which drawing stands beside the stage. */
export const useBeside = perProject<Beside>((set) => ({
  drawing: null,
  open: (drawing) => set({ drawing }),
  close: () => set({ drawing: null }),
}));

export function drawingShown(): Drawing | null {
  return useBeside.getState().drawing;
}

/** Show a drawing as it is seen from a pose. */
export function showDrawing(stage: Stage, drawing: Drawing, pose: Pose, atOnce = false): void {
  useBeside.getState().open(drawing);
  stage.goDrawing(pose, atOnce);
}
