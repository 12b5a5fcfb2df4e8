import type { Feature } from "../parts/feature";
import { useWalkActions } from "./useWalkActions";
import { WalkBar } from "./WalkBar";

/** Walking, as the page puts it together. */
export const feature: Feature = {
  name: "walking",
  actions: useWalkActions,
  slots: { overStage: [WalkBar] },
};
