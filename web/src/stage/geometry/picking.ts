import { type BufferGeometry, DoubleSide, type Intersection, Matrix4, Ray, Vector3 } from "three";
import { MeshBVH } from "three-mesh-bvh";
import { type Clips, type Entry, NO_CLIPS } from "../clips";
import type { Part, Piece } from "./piece";

/** A point on a component. */
export interface Hit {
  component: number;
  point: Vector3;
  normal: Vector3;
  distance: number;
}

/** Of two faces that touch, the one that is seen from within counts as nearer: it is a section. */
const TOUCHING_M = 0.001;

/** Finds what a ray meets; each piece's search tree is built when there is a quiet moment. */
export class Picking {
  private readonly trees = new WeakMap<BufferGeometry, MeshBVH>();

  constructor(
    private readonly pieces: () => Iterable<Piece>,
    private readonly solid: (component: number) => boolean,
  ) {}

  /** Build one tree that is still missing; false once there is none. */
  buildOne(): boolean {
    for (const piece of this.pieces()) {
      for (const { geometry } of piece.faces) {
        if (!this.trees.has(geometry)) {
          this.tree(geometry);
          return true;
        }
      }
    }
    return false;
  }

  private tree(geometry: BufferGeometry): MeshBVH {
    const found = this.trees.get(geometry) ?? new MeshBVH(geometry, { indirect: true });
    this.trees.set(geometry, found);
    return found;
  }

  /**
   * The first solid component along a ray that planes do not take away, or null. Where the inside of one is met that the
   * ray came into through a plane, its cut face is what is hit.
   */
  first(ray: Ray, clips: Clips = NO_CLIPS): Hit | null {
    let best: Hit | null = null;
    const entry = new Vector3();
    const candidates: { piece: Piece; at: number }[] = [];
    for (const piece of this.pieces()) {
      if (piece.bounds.containsPoint(ray.origin)) candidates.push({ piece, at: 0 });
      else if (ray.intersectBox(piece.bounds, entry))
        candidates.push({ piece, at: entry.distanceTo(ray.origin) });
    }
    candidates.sort((a, b) => a.at - b.at);
    for (const { piece, at } of candidates) {
      if (best && at > best.distance + TOUCHING_M) break;
      for (const face of piece.faces) {
        const hit = this.inFace(piece, face, ray, clips);
        if (hit && (!best || before(hit, best, ray))) best = hit;
      }
    }
    return best && onCutFace(best, clips.entry(ray), ray, clips);
  }

  private inFace(piece: Piece, face: Part, ray: Ray, clips: Clips): Hit | null {
    const own = new Ray().copy(ray).applyMatrix4(new Matrix4().copy(face.matrixWorld).invert());
    const hits: Intersection[] = this.tree(face.geometry).raycast(own, DoubleSide);
    const numbers = face.geometry.getAttribute("component");
    let best: Hit | null = null;
    for (const hit of hits) {
      if (!hit.face) continue;
      const component = Math.round(piece.first.value + numbers.getX(hit.face.a));
      if (!this.solid(component)) continue;
      const point = hit.point.clone().applyMatrix4(face.matrixWorld);
      if (clips.takes(point, component)) continue;
      const distance = point.distanceTo(ray.origin);
      const normal = hit.face.normal.clone().transformDirection(face.matrixWorld);
      const found = { component, point, normal, distance };
      if (!best || before(found, best, ray)) best = found;
    }
    return best;
  }
}

function onCutFace(hit: Hit, entry: Entry | null, ray: Ray, clips: Clips): Hit {
  const within = hit.normal.dot(ray.direction) > 0;
  if (!entry || !within || entry.distance >= hit.distance || clips.whole.has(hit.component)) return hit;
  const point = ray.at(entry.distance, new Vector3());
  return { ...hit, point, normal: entry.plane.normal.clone(), distance: entry.distance };
}

function before(one: Hit, other: Hit, ray: Ray): boolean {
  const depth = (hit: Hit) => hit.distance - (hit.normal.dot(ray.direction) > 0 ? TOUCHING_M : 0);
  return depth(one) < depth(other);
}
