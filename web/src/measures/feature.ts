import type { Feature } from "../parts/feature";
import { MeasuresOnStage } from "./MeasuresOnStage";
import { useMeasureActions } from "./useMeasureActions";

/** Measures, as the page puts it together. */
export const feature: Feature = {
  name: "measures",
  actions: useMeasureActions,
  desk: {
    key: "measures",
    label: "Measures",
    load: () => import("./MeasuresDesk").then((m) => m.MeasuresDesk),
  },
  slots: { overStage: [MeasuresOnStage] },
};
