import type { Feature } from "../parts/feature";
import { RouteOnPlan } from "./RouteOnPlan";
import { RouteOnStage } from "./RouteOnStage";

/** Routes, as the page puts it together. */
export const feature: Feature = {
  name: "routes",
  desk: { key: "routes", label: "Routes", load: () => import("./RoutesDesk").then((m) => m.RoutesDesk) },
  slots: { overStage: [RouteOnStage], linesOnPlan: [RouteOnPlan] },
};
