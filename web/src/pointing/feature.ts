import type { Feature } from "../parts/feature";
import { Cross } from "./Cross";
import { usePointingActions } from "./usePointingActions";

/** Pointing at the stage with the keys, as the page puts it together. */
export const feature: Feature = {
  name: "pointing with the keys",
  actions: usePointingActions,
  slots: { overStage: [Cross] },
};
