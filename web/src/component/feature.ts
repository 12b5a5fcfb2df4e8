import type { Feature } from "../parts/feature";

/** Component, as the page puts it together. */
export const feature: Feature = {
  name: "component",
  desk: {
    key: "component",
    label: "Component",
    load: () => import("./ComponentDesk").then((m) => m.ComponentDesk),
  },
};
