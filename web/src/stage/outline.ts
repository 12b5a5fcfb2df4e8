import type { Vector3 } from "three";
import { forward, type Pose } from "./pose";

const NEAREST_M = 0.05;

/** The part of a closed outline that lies before the eye; empty if none of it does. */
export function outlineBefore(corners: readonly Vector3[], pose: Pose): Vector3[] {
  if (pose.projection === "parallel") return [...corners];
  const f = forward(pose);
  const depth = (p: Vector3) => p.clone().sub(pose.eye).dot(f) - NEAREST_M;
  return corners.flatMap((corner, i) => {
    const next = corners[(i + 1) % corners.length] ?? corner;
    const [here, there] = [depth(corner), depth(next)];
    const kept = here > 0 ? [corner.clone()] : [];
    if (here > 0 !== there > 0) kept.push(corner.clone().lerp(next, here / (here - there)));
    return kept;
  });
}
