import type { Feature } from "../parts/feature";
import { BesidePane } from "./BesidePane";
import { DrawingOnStage } from "./DrawingOnStage";
import { useBesideActions } from "./useBesideActions";

/** Drawings beside the stage, as the page puts it together. */
export const feature: Feature = {
  name: "drawings beside the stage",
  actions: useBesideActions,
  slots: { overStage: [DrawingOnStage], besideStage: [BesidePane] },
};
