import type { Federation, Shapes } from "../api/client";

/** The bearing and tilt from which a building is first seen, about its own north. */
const BEARING_DEG = 32;
const TILT_DEG = 24;

export function firstLook(federation: Federation): Shapes["Look"] {
  return { bearing_deg: federation.building_north_deg + BEARING_DEG, tilt_deg: TILT_DEG };
}
