import type { Feature } from "../parts/feature";
import { Bin } from "./Bin";
import { useBinActions } from "./useBinActions";

/** The bin, as the page puts it together. */
export const feature: Feature = {
  name: "bin",
  actions: useBinActions,
  slots: { page: [Bin] },
};
