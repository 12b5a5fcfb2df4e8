import type { Feature } from "../parts/feature";
import { useAroundActions } from "./around";

/** Component, as the page puts it together. */
export const feature: Feature = {
  name: "component",
  actions: useAroundActions,
  desk: {
    key: "component",
    label: "Component",
    load: () => import("./ComponentDesk").then((m) => m.ComponentDesk),
  },
};
