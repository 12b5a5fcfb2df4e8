import { type Box3, type Ray, Vector3 } from "three";
import { type ClipPlane, type Clips, clipPlane, heightOver } from "../clips";
import type { Piece } from "./piece";

/** Which components a box drawn on the screen means: those wholly within it, or those that reach into it as well. */
export type Boxing = "inside" | "touching";

/** The four sides of what is seen through a box, by the rays through its corners in order; what lies above one is outside. */
export function sidesOf(corners: readonly Ray[], middle: Ray): ClipPlane[] {
  const within = middle.at(1, new Vector3());
  return corners.map((one, k) => {
    const other = corners[(k + 1) % corners.length] ?? one;
    const along = other.origin.clone().sub(one.origin).add(other.direction).sub(one.direction);
    const normal = along.cross(one.direction).normalize();
    const plane = clipPlane(normal, one.origin);
    if (heightOver(plane, within) <= 0) return plane;
    return clipPlane(normal.clone().negate(), one.origin);
  });
}

function beyond(box: Box3, plane: ClipPlane): boolean {
  const { normal } = plane;
  const lowest = new Vector3(
    normal.x > 0 ? box.min.x : box.max.x,
    normal.y > 0 ? box.min.y : box.max.y,
    normal.z > 0 ? box.min.z : box.max.z,
  );
  return heightOver(plane, lowest) > 0;
}

/** What of a flat shape planes leave (J. F. Blinn, M. E. Newell, Clipping using homogeneous coordinates, 1978, in space). */
function cutBy(shape: readonly Vector3[], planes: readonly ClipPlane[]): readonly Vector3[] {
  let left = shape;
  for (const plane of planes) {
    const next: Vector3[] = [];
    left.forEach((point, k) => {
      const before = left.at(k - 1) ?? point;
      const [here, there] = [heightOver(plane, point), heightOver(plane, before)];
      if (here > 0 !== there > 0) next.push(before.clone().lerp(point, there / (there - here)));
      if (here <= 0) next.push(point);
    });
    if (!next.length) return next;
    left = next;
  }
  return left;
}

/**
 * The components that a box on the screen means, of those that are solid. What cuts take away of one does not count;
 * `sides` are those of the box and the plane of the eye.
 */
export function boxed(
  pieces: Iterable<Piece>,
  sides: readonly ClipPlane[],
  how: Boxing,
  solid: (component: number) => boolean,
  clips: Clips,
): number[] {
  const inside = new Set<number>();
  const outside = new Set<number>();
  const corners = [new Vector3(), new Vector3(), new Vector3()] as const;
  for (const piece of pieces) {
    const gone = sides.some((side) => beyond(piece.bounds, side));
    if (gone && how === "touching") continue;
    for (const { geometry, matrixWorld } of piece.faces) {
      const index = geometry.getIndex();
      const numbers = geometry.getAttribute("component");
      const positions = geometry.getAttribute("position");
      for (let i = 0; i < (index?.count ?? 0); i += 3) {
        const component = Math.round(piece.first.value + numbers.getX(index?.getX(i) ?? 0));
        if (outside.has(component) || (how === "touching" && inside.has(component)) || !solid(component))
          continue;
        if (gone) {
          outside.add(component);
          continue;
        }
        corners.forEach((corner, k) => {
          corner.fromBufferAttribute(positions, index?.getX(i + k) ?? 0).applyMatrix4(matrixWorld);
        });
        const cuts = clips.whole.has(component) ? [] : clips.planes;
        const there = cuts.length ? cutBy(corners, cuts) : corners;
        if (!there.length) continue;
        if (there.every((point) => sides.every((side) => heightOver(side, point) <= 0)))
          inside.add(component);
        else if (how === "inside") outside.add(component);
        else if (cutBy(there, sides).length) inside.add(component);
      }
    }
  }
  return [...inside].filter((component) => !outside.has(component)).sort((a, b) => a - b);
}
