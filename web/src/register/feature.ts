import type { Feature } from "../parts/feature";
import { usePickActions } from "./usePickActions";

/** Register, as the page puts it together. */
export const feature: Feature = {
  name: "register",
  actions: usePickActions,
  desk: {
    key: "register",
    label: "Register",
    load: () => import("./RegisterDesk").then((m) => m.RegisterDesk),
  },
};
