import { Vector2, Vector3 } from "three";
import type { Hit } from "./picking";
import { edgesOf, type Piece } from "./piece";

export type SnapKind = "corner" | "middle" | "crossing" | "face";

export interface Snap {
  kind: SnapKind;
  point: Vector3;
}

const REACH_PX = 14;

/**
 * The exact point meant by a click on a component: the nearest corner, else middle of an edge,
 * else grid crossing on the screen within reach, else the point of the face itself.
 */
export function snapTo(
  hit: Hit,
  pieces: Iterable<Piece>,
  crossings: readonly Vector2[],
  project: (point: Vector3) => Vector2,
  size: { width: number; height: number },
  there: (point: Vector3) => boolean = () => true,
): Snap {
  const at = project(hit.point);
  const away = (point: Vector3) => {
    const p = project(point);
    return Math.hypot(((p.x - at.x) * size.width) / 2, ((p.y - at.y) * size.height) / 2);
  };
  const best: Record<SnapKind, { point: Vector3; px: number } | null> = {
    corner: null,
    middle: null,
    crossing: null,
    face: null,
  };
  const offer = (kind: SnapKind, point: Vector3) => {
    if (!there(point)) return;
    const px = away(point);
    if (px <= REACH_PX && px < (best[kind]?.px ?? Number.POSITIVE_INFINITY)) best[kind] = { point, px };
  };
  for (const [a, b] of edgesOf(pieces, hit.component)) {
    offer("corner", a);
    offer("corner", b);
    offer("middle", a.clone().add(b).multiplyScalar(0.5));
  }
  for (const c of crossings) offer("crossing", new Vector3(c.x, c.y, hit.point.z));
  for (const kind of ["corner", "middle", "crossing"] as const) {
    const found = best[kind];
    if (found) return { kind, point: found.point };
  }
  return { kind: "face", point: hit.point.clone() };
}

/** Where the axes of a grid cross on plan. */
export function crossingsOf(axes: readonly { ends: number[][] }[]): Vector2[] {
  const found: Vector2[] = [];
  const lines = axes.map((axis) => {
    const [a = [0, 0], b = [0, 0]] = axis.ends;
    return {
      at: new Vector2(a[0], a[1]),
      way: new Vector2((b[0] ?? 0) - (a[0] ?? 0), (b[1] ?? 0) - (a[1] ?? 0)),
    };
  });
  lines.forEach((one, i) => {
    for (const other of lines.slice(i + 1)) {
      const area = one.way.cross(other.way);
      if (Math.abs(area) < 1e-6 * one.way.length() * other.way.length()) continue;
      const share = other.at.clone().sub(one.at).cross(other.way) / area;
      found.push(one.at.clone().addScaledVector(one.way, share));
    }
  });
  return found;
}
