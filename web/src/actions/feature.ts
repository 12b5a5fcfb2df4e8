import type { Feature } from "../parts/feature";
import { useWindowActions } from "./useWindowActions";

/** Find box and keys, as the page puts it together. */
export const feature: Feature = {
  name: "find box and keys",
  actions: useWindowActions,
};
