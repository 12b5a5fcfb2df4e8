import type { Feature } from "../parts/feature";
import { TourBar } from "./TourBar";

/** Tours, as the page puts it together. */
export const feature: Feature = {
  name: "tours",
  slots: { overStage: [TourBar] },
};
