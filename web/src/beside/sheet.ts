import { Vector3 } from "three";
import { forward, type Pose } from "../stage/pose";

/** What is to the right and what is up on a drawing. */
export function sheetAxes(pose: Pose): { right: Vector3; up: Vector3; into: Vector3 } {
  const into = forward(pose);
  const right = new Vector3().crossVectors(into, pose.up).normalize();
  return { right, up: new Vector3().crossVectors(right, into), into };
}

/** How far a point moves in the drawing's plane when it is dragged by so many pixels. */
export function shiftOn(pose: Pose, heightPx: number, dx: number, dy: number): Vector3 {
  const metres = pose.heightM / Math.max(1, heightPx);
  const { right, up } = sheetAxes(pose);
  return right.multiplyScalar(dx * metres).addScaledVector(up, -dy * metres);
}

/** The corners of what a drawing shows, in the plane where its eye cuts the building. */
export function cornersOf(pose: Pose, aspect: number): Vector3[] {
  const { right, up } = sheetAxes(pose);
  const [w, h] = [(pose.heightM * aspect) / 2, pose.heightM / 2];
  return (
    [
      [-w, -h],
      [w, -h],
      [w, h],
      [-w, h],
    ] as const
  ).map(([x, y]) => pose.eye.clone().addScaledVector(right, x).addScaledVector(up, y));
}

/** Drawings that look nearly alike cut one another nowhere that one could see. */
const SQUARE = 0.2;

/** Where a drawing is cut as another one sees it: a line through its eye, as wide as it is, and the way it looks; or null. */
export function cutLine(
  own: Pose,
  cut: Pose,
  cutAspect: number,
): { from: Vector3; to: Vector3; into: Vector3 } | null {
  const [sheet, other] = [sheetAxes(own), sheetAxes(cut)];
  const along = new Vector3().crossVectors(sheet.into, other.into);
  if (along.length() < SQUARE) return null;
  along.normalize();
  const reach =
    Math.abs(along.dot(other.right)) * cut.heightM * cutAspect + Math.abs(along.dot(other.up)) * cut.heightM;
  return {
    from: cut.eye.clone().addScaledVector(along, -reach / 2),
    to: cut.eye.clone().addScaledVector(along, reach / 2),
    into: other.into,
  };
}

/** How far a point goes along a way, in pixels, so that it is on a sheet, so far from its edge; 0 where it is. */
export function ontoSheet(
  at: { x: number; y: number },
  way: { x: number; y: number },
  size: { width: number; height: number },
  edgePx: number,
): number {
  const by = (p: number, along: number, whole: number) => {
    const within = Math.max(edgePx, Math.min(whole - edgePx, p));
    return Math.abs(along) < SQUARE ? 0 : (within - p) / along;
  };
  const [x, y] = [by(at.x, way.x, size.width), by(at.y, way.y, size.height)];
  return Math.abs(x) > Math.abs(y) ? x : y;
}

const NEAREST_M = 0.05;

/**
 * A pose with its eye or its target somewhere else; the other stays. Verticals stay upright
 * unless it looks straight up or down.
 */
export function aimed(pose: Pose, eye: Vector3, target: Vector3): Pose {
  const look = target.clone().sub(eye);
  if (look.length() < NEAREST_M) return pose;
  look.normalize();
  const flat = Math.hypot(look.x, look.y);
  const before = pose.up.clone().setZ(0);
  const right =
    flat > 1e-4
      ? new Vector3(look.y, -look.x, 0).normalize()
      : new Vector3()
          .crossVectors(look, before.lengthSq() > 1e-8 ? before : new Vector3(0, 1, 0))
          .normalize();
  return { ...pose, eye, target, up: new Vector3().crossVectors(right, look).normalize() };
}

/** Where a ray meets the plane through a point, or null if it runs along it or away from it. */
export function onPlane(
  ray: { origin: Vector3; direction: Vector3 },
  point: Vector3,
  normal: Vector3,
): Vector3 | null {
  const slant = ray.direction.dot(normal);
  if (Math.abs(slant) < 0.03) return null;
  const reach = point.clone().sub(ray.origin).dot(normal) / slant;
  return reach > 0 ? ray.origin.clone().addScaledVector(ray.direction, reach) : null;
}

/** How far along a line (from a point, in a direction) a ray passes closest to it, or null if it runs alongside. */
export function alongLine(
  ray: { origin: Vector3; direction: Vector3 },
  from: Vector3,
  direction: Vector3,
): number | null {
  const across = ray.direction.dot(direction);
  const spread = 1 - across * across;
  if (spread < 1e-3) return null;
  const apart = from.clone().sub(ray.origin);
  return (across * apart.dot(ray.direction) - apart.dot(direction)) / spread;
}
