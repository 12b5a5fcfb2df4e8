import type { Feature } from "../parts/feature";
import { DrawingTrail } from "./Trail";
import { useTrailActions } from "./useTrailActions";

/** Trail, as the page puts it together. */
export const feature: Feature = {
  name: "Trail",
  actions: useTrailActions,
  slots: { underDrawing: [DrawingTrail] },
};
