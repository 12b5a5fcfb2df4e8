import type { Feature } from "../parts/feature";
import { Legend } from "./Legend";
import { Reasons } from "./Reasons";
import { useSeenActions } from "./useSeenActions";

/** What is shown and why, as the page puts it together. */
export const feature: Feature = {
  name: "what is shown and why",
  actions: useSeenActions,
  slots: { overBuilding: [Legend, Reasons] },
};
