import type { Feature } from "../parts/feature";
import { PickedLarge } from "./PickedLarge";
import { TogetherOnStage } from "./TogetherOnStage";
import { useTogetherActions } from "./useTogetherActions";

/** Presenting and following, as the page puts it together. */
export const feature: Feature = {
  name: "presenting and following",
  actions: useTogetherActions,
  slots: { overStage: [TogetherOnStage, PickedLarge] },
};
