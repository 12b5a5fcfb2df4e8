import type { Feature } from "../parts/feature";
import { useCameraActions } from "./useCameraActions";

/** Lenses and fits, as the page puts it together. */
export const feature: Feature = {
  name: "lenses and fits",
  actions: useCameraActions,
};
