import { type Ray, Vector2, type Vector3 } from "three";
import { copyPose, forward, type Pose } from "../pose";

/** A region narrower than this share of the frame was a slip of the hand. */
const LEAST = 0.01;
const SAMPLES = 7;

interface Seen {
  rayAt(at: Vector2): Ray;
  pointAt(at: Vector2): Vector3 | null;
  /** The depth that counts where nothing is seen in the region. */
  reachM: number;
}

/** The middle of the depths at which things are seen in a region. */
function depthOf(pose: Pose, from: Vector2, to: Vector2, seen: Seen): number {
  const f = forward(pose);
  const depths: number[] = [];
  for (let i = 0; i < SAMPLES ** 2; i++) {
    const u = (i % SAMPLES) / (SAMPLES - 1);
    const v = Math.floor(i / SAMPLES) / (SAMPLES - 1);
    const point = seen.pointAt(new Vector2(from.x + (to.x - from.x) * u, from.y + (to.y - from.y) * v));
    if (point) depths.push(point.sub(pose.eye).dot(f));
  }
  depths.sort((a, b) => a - b);
  return depths[Math.floor(depths.length / 2)] ?? Math.max(0.5, seen.reachM);
}

/**
 * The view that frames what is seen in a region at its own depth, keeping the direction.
 * Corners are given from -1 to 1; null if the region is too small to be meant.
 */
export function regionPose(pose: Pose, from: Vector2, to: Vector2, seen: Seen): Pose | null {
  const share = Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y)) / 2;
  if (share < LEAST) return null;
  const f = forward(pose);
  const depth = depthOf(pose, from, to, seen);
  const { origin, direction } = seen.rayAt(from.clone().add(to).multiplyScalar(0.5));
  const next = copyPose(pose);
  next.heightM *= share;
  if (pose.projection === "parallel") {
    const aside = origin.clone().sub(pose.eye);
    aside.addScaledVector(f, -aside.dot(f));
    next.eye.add(aside);
    next.target.add(aside);
  } else {
    next.target.copy(origin).addScaledVector(direction, depth / direction.dot(f));
    next.eye.copy(next.target).addScaledVector(f, -depth * share);
  }
  return next;
}
