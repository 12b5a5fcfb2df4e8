import { type Ray, type Vector3, Vector4 } from "three";
import { MOST_PLANES } from "../api/constants";

/** A plane that cuts: what lies above it, along its normal, is taken away. */
export interface ClipPlane {
  normal: Vector3;
  /** How far along the normal the plane lies from the origin. */
  at: number;
}

export function clipPlane(normal: Vector3, point: Vector3): ClipPlane {
  return { normal, at: normal.dot(point) };
}

/** How far a point lies above a plane, below zero beneath it. */
export function heightOver(plane: ClipPlane, point: Vector3): number {
  return plane.normal.dot(point) - plane.at;
}

/** How a ray comes into what planes leave: through which of them, and how far along. */
export interface Entry {
  plane: ClipPlane;
  distance: number;
}

/** The planes that cut a view, and which components they spare. */
export class Clips {
  constructor(
    readonly planes: readonly ClipPlane[] = [],
    readonly whole: ReadonlySet<number> = new Set(),
  ) {}

  /** Whether a point of a component is taken away. */
  takes(point: Vector3, component: number): boolean {
    return !this.whole.has(component) && this.planes.some((plane) => heightOver(plane, point) > 1e-4);
  }

  /** Where a ray comes in through the last of the planes that it crosses; null where it begins within what is left. */
  entry(ray: Ray): Entry | null {
    let last: Entry | null = null;
    for (const plane of this.planes) {
      const above = heightOver(plane, ray.origin);
      const slope = plane.normal.dot(ray.direction);
      if (above <= 0 || slope >= 0) continue;
      const distance = -above / slope;
      if (!last || distance > last.distance) last = { plane, distance };
    }
    return last;
  }

  /** The planes as the shader takes them. */
  fill(into: Vector4[]): number {
    const count = Math.min(this.planes.length, into.length);
    for (let i = 0; i < count; i++) {
      const plane = this.planes[i];
      if (plane) into[i]?.set(plane.normal.x, plane.normal.y, plane.normal.z, plane.at);
    }
    return count;
  }
}

export const NO_CLIPS = new Clips();

export function clipUniform(): Vector4[] {
  return Array.from({ length: MOST_PLANES }, () => new Vector4());
}
