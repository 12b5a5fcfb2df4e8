import { type Box3, type Ray, Vector3 } from "three";

/** Places of the view, in shares of its width and height, where a tab is best seen: beside the middle, not over it. */
const PLACES = [
  [0.82, 0.5],
  [0.82, 0.3],
  [0.7, 0.5],
  [0.7, 0.7],
  [0.3, 0.5],
  [0.18, 0.35],
  [0.5, 0.3],
  [0.5, 0.7],
  [0.5, 0.5],
] as const;
const BESIDE_M = 2;
/** So many places on, one is on another side of the view. */
const APART = 4;

/** What a tab needs to know of a view. */
interface Sheet {
  size: { width: number; height: number };
  rayAtPixel(x: number, y: number): Ray;
}

/**
 * Where on a plane its tab stands: at the first of some places of the view where the plane is met near the building, else
 * at the foot of the building's middle. The tabs of several cuts begin at different places.
 */
export function anchorOn(
  plane: { point: Vector3; normal: Vector3 },
  bounds: Box3,
  sheet: Sheet,
  order = 0,
): Vector3 {
  const near = bounds.clone().expandByScalar(BESIDE_M);
  const { width, height } = sheet.size;
  const places = PLACES.map((_, i) => PLACES[(i + APART * order) % PLACES.length] ?? PLACES[0]);
  for (const [u, v] of places) {
    const ray = sheet.rayAtPixel(u * width, v * height);
    const slope = ray.direction.dot(plane.normal);
    if (Math.abs(slope) < 0.05) continue;
    const distance = plane.point.clone().sub(ray.origin).dot(plane.normal) / slope;
    if (distance <= 0) continue;
    const at = ray.at(distance, new Vector3());
    if (near.containsPoint(at)) return at;
  }
  const middle = bounds.getCenter(new Vector3());
  return middle.addScaledVector(plane.normal, plane.point.clone().sub(middle).dot(plane.normal));
}
