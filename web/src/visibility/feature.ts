import type { Feature } from "../parts/feature";
import { Legend } from "./Legend";
import { Reasons } from "./Reasons";
import { useVisibilityActions } from "./useVisibilityActions";

/** What is shown and why, as the page puts it together. */
export const feature: Feature = {
  name: "what is shown and why",
  actions: useVisibilityActions,
  slots: { overBuilding: [Legend, Reasons] },
};
