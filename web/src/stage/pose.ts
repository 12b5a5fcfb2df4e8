import { Matrix4, Quaternion, Vector3 } from "three";
import type { PoseShape } from "../api/client";

/** A camera about the project's origin, in the stage's own vectors. */
export interface Pose {
  eye: Vector3;
  target: Vector3;
  up: Vector3;
  projection: "perspective" | "parallel";
  angleDeg: number;
  heightM: number;
}

export function fromShape(shape: PoseShape): Pose {
  return {
    eye: new Vector3().fromArray(shape.eye_m),
    target: new Vector3().fromArray(shape.target_m),
    up: new Vector3().fromArray(shape.up),
    projection: shape.projection,
    angleDeg: shape.angle_deg,
    heightM: shape.height_m,
  };
}

export function toShape(pose: Pose): PoseShape {
  return {
    eye_m: pose.eye.toArray(),
    target_m: pose.target.toArray(),
    up: pose.up.toArray(),
    projection: pose.projection,
    angle_deg: pose.angleDeg,
    height_m: pose.heightM,
  };
}

export function copyPose(pose: Pose): Pose {
  return { ...pose, eye: pose.eye.clone(), target: pose.target.clone(), up: pose.up.clone() };
}

export function forward(pose: Pose): Vector3 {
  return pose.target.clone().sub(pose.eye).normalize();
}

/** Bearing clockwise from +Y, and tilt above zero when looking down. */
export function looking(pose: Pose): { bearingDeg: number; tiltDeg: number } {
  const f = forward(pose);
  const flat = Math.hypot(f.x, f.y);
  const along = flat > 1e-6 ? f : pose.up;
  return {
    bearingDeg: (Math.atan2(along.x, along.y) * (180 / Math.PI) + 360) % 360,
    tiltDeg: Math.atan2(-f.z, flat) * (180 / Math.PI),
  };
}

export function focalMm(angleDeg: number): number {
  return 36 / (2 * Math.tan((angleDeg * Math.PI) / 360));
}

/** A pose a share of the way from one to another: the line of sight turns, the eye moves along. */
export function between(from: Pose, to: Pose, share: number): Pose {
  const turn = (pose: Pose) =>
    new Quaternion().setFromRotationMatrix(new Matrix4().lookAt(pose.eye, pose.target, pose.up));
  const q = turn(from).slerp(turn(to), share);
  const mix = (a: number, b: number) => a + (b - a) * share;
  const eye = from.eye.clone().lerp(to.eye, share);
  const reach = mix(from.eye.distanceTo(from.target), to.eye.distanceTo(to.target));
  return {
    eye,
    target: eye.clone().add(new Vector3(0, 0, -reach).applyQuaternion(q)),
    up: new Vector3(0, 1, 0).applyQuaternion(q),
    projection: to.projection,
    angleDeg: mix(from.angleDeg, to.angleDeg),
    heightM: mix(from.heightM, to.heightM),
  };
}
