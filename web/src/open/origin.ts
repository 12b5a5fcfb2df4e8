import { Vector3 } from "three";

/** A point of the project as the stage counts it, from the federation's origin. */
export function onStage(at_m: readonly number[], origin_m: readonly number[]): Vector3 {
  return new Vector3().fromArray(at_m.map((c, axis) => c - (origin_m[axis] ?? 0)));
}

/** A point by its three figures, as the project has it. */
export function shifted(point: readonly number[], origin_m: readonly number[]): number[] {
  return point.map((c, axis) => c + (origin_m[axis] ?? 0));
}

/** A point of the stage in the project's coordinates. */
export function inProject(point: Vector3, origin_m: readonly number[]): number[] {
  return shifted(point.toArray(), origin_m);
}
