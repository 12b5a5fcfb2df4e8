import type { Feature } from "../parts/feature";
import { MarkupsOnStage } from "./MarkupsOnStage";
import { PicturesOnStage } from "./PicturesOnStage";
import { useMarkupActions } from "./useMarkupActions";

/** Markups, as the page puts it together. */
export const feature: Feature = {
  name: "markups",
  actions: useMarkupActions,
  desk: { key: "markups", label: "Markups", load: () => import("./MarkupsDesk").then((m) => m.MarkupsDesk) },
  slots: { overStage: [MarkupsOnStage, PicturesOnStage] },
};
