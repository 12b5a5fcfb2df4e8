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
  /** What is nearer than this along the line of sight is looked through; 0 for nothing. */
  throughM: number;
}

export function fromShape(shape: PoseShape): Pose {
  return {
    eye: new Vector3().fromArray(shape.eye_m),
    target: new Vector3().fromArray(shape.target_m),
    up: new Vector3().fromArray(shape.up),
    projection: shape.projection,
    angleDeg: shape.angle_deg,
    heightM: shape.height_m,
    throughM: shape.through_m ?? 0,
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
    through_m: pose.throughM,
  };
}

export function copyPose(pose: Pose): Pose {
  return { ...pose, eye: pose.eye.clone(), target: pose.target.clone(), up: pose.up.clone() };
}

/** Whether two poses are one and the same. */
export function isSame(one: Pose, other: Pose): boolean {
  return JSON.stringify(toShape(one)) === JSON.stringify(toShape(other));
}

export function forward(pose: Pose): Vector3 {
  return pose.target.clone().sub(pose.eye).normalize();
}

/** Bearing clockwise from +Y, and tilt above zero when looking down. */
export function looking(pose: Pose): { bearingDeg: number; tiltDeg: number } {
  const f = forward(pose);
  const flat = Math.hypot(f.x, f.y);
  // Straight down, the bearing is what is up on the screen; straight up, what is down on it.
  const along = flat > 1e-6 ? f : pose.up.clone().multiplyScalar(f.z < 0 ? 1 : -1);
  return {
    bearingDeg: (Math.atan2(along.x, along.y) * (180 / Math.PI) + 360) % 360,
    tiltDeg: Math.atan2(-f.z, flat) * (180 / Math.PI),
  };
}

/** The direction of a bearing and a tilt, and what is up in it. */
export function along(bearingDeg: number, tiltDeg: number): { forward: Vector3; up: Vector3 } {
  const b = (bearingDeg * Math.PI) / 180;
  const t = (tiltDeg * Math.PI) / 180;
  const [flat, down] = [Math.cos(t), Math.sin(t)];
  return {
    forward: new Vector3(Math.sin(b) * flat, Math.cos(b) * flat, -down),
    up: new Vector3(Math.sin(b) * down, Math.cos(b) * down, flat),
  };
}

/** A pose that looks along a direction, turned about a point that keeps its place on the screen. */
export function turned(pose: Pose, about: Vector3, bearingDeg: number, tiltDeg: number): Pose {
  const look = (f: Vector3, up: Vector3) =>
    new Quaternion().setFromRotationMatrix(new Matrix4().lookAt(new Vector3(), f, up));
  const to = along(bearingDeg, tiltDeg);
  const turn = look(to.forward, to.up).multiply(look(forward(pose), pose.up).invert());
  const moved = (point: Vector3) => point.clone().sub(about).applyQuaternion(turn).add(about);
  return { ...pose, eye: moved(pose.eye), target: moved(pose.target), up: to.up };
}

/** Whether a parallel view is opened: cut where its eye looks through what is nearer. */
export function isOpened(pose: Pose): boolean {
  return pose.projection === "parallel" && pose.throughM > 0;
}

/** The eye of an opened view stands within the building; closed, it looks from outside. */
const BACK_M = 200;

/** A parallel view is opened along one direction; turned away from it, it shows everything again. */
export function closed(pose: Pose): Pose {
  if (!isOpened(pose)) return pose;
  const eye = pose.eye.clone().addScaledVector(forward(pose), -BACK_M);
  return { ...copyPose(pose), eye, throughM: 0 };
}

/** A lens while it is dragged: the eye stays, or the subject at the target keeps its size. */
export function withAngle(pose: Pose, angleDeg: number, keep: "eye" | "subject"): Pose {
  const share = Math.tan((pose.angleDeg * Math.PI) / 360) / Math.tan((angleDeg * Math.PI) / 360);
  if (keep === "eye") return { ...copyPose(pose), angleDeg, heightM: pose.heightM / share };
  const eye = pose.eye.clone().sub(pose.target).multiplyScalar(share).add(pose.target);
  return { ...copyPose(pose), eye, angleDeg };
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
    throughM: mix(from.throughM, to.throughM),
  };
}
