import { Vector3 } from "three";
import { along } from "./pose";

const RAYS = 72;
const FAR_M = 80;
/** Nearer than this something is looked at and nothing else seen. */
const FACES_M = 2.5;

/**
 * The bearing to look along from a point: the one that is wanted, unless something stands right before the eye there;
 * then that of the longest clear line on the level.
 */
export function openBearing(
  clear: (from: Vector3, to: Vector3) => number,
  eye: Vector3,
  wantedDeg: number,
): number {
  const reach = (bearingDeg: number) =>
    clear(eye, new Vector3().copy(eye).addScaledVector(along(bearingDeg, 0).forward, FAR_M));
  if (reach(wantedDeg) >= FACES_M) return wantedDeg;
  let [best, longest] = [wantedDeg, 0];
  for (let k = 0; k < RAYS; k++) {
    const bearing = (k * 360) / RAYS;
    const length = reach(bearing);
    if (length > longest + 1e-6) [best, longest] = [bearing, length];
  }
  return best;
}
