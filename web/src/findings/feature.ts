import type { Feature } from "../parts/feature";
import { FindingsOnStage } from "./FindingsOnStage";

/** Findings, as the page puts it together. */
export const feature: Feature = {
  name: "findings",
  desk: {
    key: "findings",
    label: "Findings",
    load: () => import("./FindingsDesk").then((m) => m.FindingsDesk),
  },
  slots: { overStage: [FindingsOnStage] },
};
