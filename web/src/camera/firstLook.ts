import type { Federation, Shapes } from "../api/client";
import type { Pose } from "../stage/pose";

/** The bearing and tilt from which a building is first seen, about its own north, and the lens. */
const BEARING_DEG = 32;
const TILT_DEG = 24;
const LENS: Pick<Pose, "projection" | "angleDeg"> = { projection: "perspective", angleDeg: 30 };

/** How a project is seen that is opened for the first time. */
export function firstLook(federation: Federation): { look: Shapes["Look"]; lens: typeof LENS } {
  return {
    look: { bearing_deg: federation.building_north_deg + BEARING_DEG, tilt_deg: TILT_DEG },
    lens: LENS,
  };
}
