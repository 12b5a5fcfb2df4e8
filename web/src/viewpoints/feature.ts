import type { Feature } from "../parts/feature";
import { FramePicture } from "./FramePicture";
import { useHomeActions } from "./useHomeActions";
import { useNewViewpoints } from "./useNewViewpoints";

/** Viewpoints, as the page puts it together. */
export const feature: Feature = {
  name: "viewpoints",
  actions: useHomeActions,
  desk: {
    key: "viewpoints",
    label: "Viewpoints",
    load: () => import("./ViewpointsDesk").then((m) => m.ViewpointsDesk),
    useNew: useNewViewpoints,
  },
  slots: { page: [FramePicture] },
};
