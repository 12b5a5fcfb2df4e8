import { Vector3 } from "three";

/** What a second point is held to: an axis of the building, square to the first face, or level with the first point. */
export type Lock = "free" | "east" | "north" | "up" | "square" | "plan";

export const LOCKS: Readonly<Record<Lock, string>> = {
  free: "free",
  east: "east–west",
  north: "north–south",
  up: "up",
  square: "square to the face",
  plan: "on plan",
};

export const LOCK_NAMES = Object.keys(LOCKS) as readonly Lock[];

/** The way along which a lock holds; null for none. */
function wayOf(lock: Lock, northDeg: number, normal: Vector3): Vector3 | null {
  const angle = (northDeg * Math.PI) / 180;
  if (lock === "east") return new Vector3(Math.cos(angle), -Math.sin(angle), 0);
  if (lock === "north") return new Vector3(Math.sin(angle), Math.cos(angle), 0);
  if (lock === "up") return new Vector3(0, 0, 1);
  return lock === "square" ? normal : null;
}

/** Where a point is held, seen from the first one, whose face looks along the normal. */
export function held(
  from: { point: Vector3; normal: Vector3 },
  to: Vector3,
  lock: Lock,
  northDeg: number,
): Vector3 {
  if (lock === "plan") return new Vector3(to.x, to.y, from.point.z);
  const way = wayOf(lock, northDeg, from.normal);
  if (!way) return to.clone();
  const along = to.clone().sub(from.point).dot(way) / way.lengthSq();
  return from.point.clone().addScaledVector(way, along);
}
