import type { Feature } from "../parts/feature";
import { GoneInLegend } from "./GoneOnStage";
import { useAlternativeActions } from "./useAlternativeActions";

/** Models, as the page puts it together. */
export const feature: Feature = {
  name: "models",
  actions: useAlternativeActions,
  desk: { key: "models", label: "Models", load: () => import("./ModelsDesk").then((m) => m.ModelsDesk) },
  slots: { legend: [GoneInLegend] },
};
