import type { Feature } from "../parts/feature";
import { KeyPlan } from "./KeyPlan";
import { useTurnActions } from "./useTurnActions";

/** Key plan, as the page puts it together. */
export const feature: Feature = {
  name: "key plan",
  actions: useTurnActions,
  slots: { overBuilding: [KeyPlan] },
};
