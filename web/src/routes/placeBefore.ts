import { type Box3, Vector3 } from "three";
import { EYE_HEIGHT_M } from "../api/constants";
import type { Pose } from "../stage/pose";

const BACK_M = 2.2;
const FROM_WALL_M = 0.3;

/** What of the stage it takes: the present pose to change, where components lie, and how far one sees. */
interface Seen {
  pose: Pose;
  boxOf(components: readonly number[]): Box3;
  clear(from: Vector3, to: Vector3): number;
}

/** The way from which somebody comes to a point of a route; none where the route has only that. */
function wayTo(point: Vector3, points: readonly Vector3[]): Vector3 | null {
  const before = points
    .filter((p) => p.distanceTo(point) > BACK_M)
    .sort((a, b) => a.distanceTo(point) - b.distanceTo(point))[0];
  return before ? point.clone().sub(before).setZ(0) : null;
}

/**
 * Where to stand before a point of a route, to see what makes it tight or ends it: as far back as the lens needs to see
 * all of that, and as the room allows.
 */
export function placeBefore(
  view: Seen,
  point: Vector3,
  points: readonly Vector3[],
  components: readonly number[],
): Pose {
  const { pose } = view;
  const box = view.boxOf(components);
  const eyes = point.clone().setZ(point.z + EYE_HEIGHT_M);
  const seen = box.isEmpty()
    ? point.clone().setZ(point.z + EYE_HEIGHT_M * 0.75)
    : box.getCenter(new Vector3());
  const towards = seen.clone().sub(point).setZ(0);
  const way = wayTo(point, points) ?? (towards.length() > 0.1 ? towards : new Vector3(0, 1, 0));
  way.normalize();
  const radius = box.isEmpty() ? 0 : box.getSize(new Vector3()).length() / 2;
  const needed = radius / Math.sin((pose.angleDeg * Math.PI) / 360) - towards.length();
  const wanted = eyes.clone().addScaledVector(way, -Math.max(BACK_M, needed));
  const clear = view.clear(eyes, wanted);
  pose.projection = "perspective";
  const far = eyes.distanceTo(wanted);
  pose.eye.copy(eyes).addScaledVector(way, -(clear < far ? Math.max(0, clear - FROM_WALL_M) : far));
  pose.target.copy(seen);
  pose.up.set(0, 0, 1);
  return pose;
}
