import type { Feature } from "../parts/feature";
import { CutsOnPlan } from "./CutsOnPlan";
import { CutsOnStage } from "./CutsOnStage";
import { useCutActions } from "./useCutActions";

/** Cuts, as the page puts it together. */
export const feature: Feature = {
  name: "cuts",
  actions: useCutActions,
  desk: { key: "cuts", label: "Cuts", load: () => import("./CutsDesk").then((m) => m.CutsDesk) },
  slots: { overStage: [CutsOnStage], linesOnPlan: [CutsOnPlan] },
};
