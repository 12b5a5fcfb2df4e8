import type { Federation, Shapes } from "../../api/client";
import { FIRST_VIEW } from "../../api/constants";
import type { Pose } from "../../stage/pose";

const LENS: Pick<Pose, "projection" | "angleDeg"> = {
  projection: "perspective",
  angleDeg: FIRST_VIEW.angleDeg,
};

/** How a project is seen that is opened for the first time. */
export function firstLook(federation: Federation): { look: Shapes["Look"]; lens: typeof LENS } {
  return {
    look: {
      bearing_deg: federation.building_north_deg + FIRST_VIEW.bearingDeg,
      tilt_deg: FIRST_VIEW.tiltDeg,
    },
    lens: LENS,
  };
}
