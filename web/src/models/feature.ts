import type { Feature } from "../parts/feature";
import { GoneInLegend } from "./GoneOnStage";
import { NewerIssues, useNewIssues } from "./NewerIssues";
import { useAlternativeActions } from "./useAlternativeActions";

/** Models, as the page puts it together. */
export const feature: Feature = {
  name: "models",
  actions: useAlternativeActions,
  desk: {
    key: "models",
    label: "Models",
    load: () => import("./ModelsDesk").then((m) => m.ModelsDesk),
    useNew: useNewIssues,
  },
  slots: { legend: [GoneInLegend], page: [NewerIssues] },
};
