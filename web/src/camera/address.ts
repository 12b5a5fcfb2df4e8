import { Vector3 } from "three";
import type { Pose } from "../stage/pose";

const DIGITS = 4;

/** The present view as the address bar carries it, in project coordinates, so that it outlives another origin. */
export function toAddress(pose: Pose, origin: readonly number[]): string {
  const world = (v: Vector3) => v.toArray().map((c, i) => Number((c + (origin[i] ?? 0)).toFixed(DIGITS)));
  const figures = [
    ...world(pose.eye),
    ...world(pose.target),
    ...pose.up.toArray().map((c) => Number(c.toFixed(6))),
    Number(pose.angleDeg.toFixed(3)),
    Number(pose.heightM.toFixed(DIGITS)),
  ];
  return `#view=${pose.projection === "parallel" ? "p" : "e"}${figures.join(",")}`;
}

/** The view that an address carries, or null if it carries none that can be looked at. */
export function fromAddress(hash: string, origin: readonly number[]): Pose | null {
  const match = /^#view=([pe])([-\d.,e]+)$/.exec(hash);
  const f = match?.[2]?.split(",").map(Number) ?? [];
  if (f.length !== 11 || f.some((v) => !Number.isFinite(v))) return null;
  const at = (i: number) =>
    new Vector3(f[i], f[i + 1], f[i + 2]).sub(new Vector3(origin[0], origin[1], origin[2]));
  const pose: Pose = {
    projection: match?.[1] === "p" ? "parallel" : "perspective",
    eye: at(0),
    target: at(3),
    up: new Vector3(f[6], f[7], f[8]),
    angleDeg: Math.max(1, Math.min(120, f[9] ?? 60)),
    heightM: Math.max(0.01, f[10] ?? 10),
  };
  const look = pose.target.clone().sub(pose.eye);
  return look.clone().cross(pose.up).length() > 1e-6 * look.length() && look.length() > 1e-3 ? pose : null;
}
