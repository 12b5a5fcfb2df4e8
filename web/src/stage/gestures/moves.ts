import { Quaternion, type Vector2, Vector3 } from "three";
import { forward, type Pose } from "../pose";

const STEEPEST = Math.PI / 2 - 0.002;
const UP = new Vector3(0, 0, 1);

function rightOf(pose: Pose): Vector3 {
  return new Vector3().crossVectors(forward(pose), pose.up).normalize();
}

function turnAbout(pose: Pose, pivot: Vector3, turn: Quaternion): void {
  for (const point of [pose.eye, pose.target]) point.sub(pivot).applyQuaternion(turn).add(pivot);
  pose.up.applyQuaternion(turn);
}

/** Keep verticals upright: the up vector stays in the vertical plane of the line of sight. */
export function uprighten(pose: Pose): void {
  const f = forward(pose);
  if (Math.abs(f.z) > 0.99999) return;
  const right = new Vector3(f.y, -f.x, 0).normalize();
  pose.up.crossVectors(right, f).normalize();
}

/** Turn a pose about a pivot, in radians; verticals stay upright, tilt stops before straight up and down. */
export function orbit(pose: Pose, pivot: Vector3, yaw: number, pitch: number): void {
  const tilt = Math.asin(Math.max(-1, Math.min(1, -forward(pose).z)));
  const bounded = tilt - Math.max(-STEEPEST, Math.min(STEEPEST, tilt - pitch));
  const turn = new Quaternion()
    .setFromAxisAngle(UP, yaw)
    .multiply(new Quaternion().setFromAxisAngle(rightOf(pose), bounded));
  turnAbout(pose, pivot, turn);
  uprighten(pose);
}

/** Turn a pose about the screen's own axes, in radians, whatever is up. */
export function tumble(pose: Pose, pivot: Vector3, yaw: number, pitch: number): void {
  const turn = new Quaternion()
    .setFromAxisAngle(pose.up.clone().normalize(), yaw)
    .multiply(new Quaternion().setFromAxisAngle(rightOf(pose), pitch));
  turnAbout(pose, pivot, turn);
  pose.up.normalize();
}

interface Sight {
  origin: Vector3;
  direction: Vector3;
}

/** How a pose has to move so that an anchor goes from under one sight line to under another. */
export function shiftOf(pose: Pose, anchor: Vector3, from: Sight, to: Sight): Vector3 {
  const f = forward(pose);
  const onPlane = ({ origin, direction }: Sight): Vector3 => {
    const reach = anchor.clone().sub(origin).dot(f) / Math.max(1e-6, direction.dot(f));
    return origin.clone().addScaledVector(direction, reach);
  };
  return onPlane(from).sub(onPlane(to));
}

/** How far a point goes around another one, clockwise in radians, on a view of such a size; points are from -1 to 1, right and up. */
export function around(
  middle: Vector2,
  from: Vector2,
  to: Vector2,
  size: { width: number; height: number },
): number {
  const angle = (at: Vector2) => Math.atan2((at.y - middle.y) * size.height, (at.x - middle.x) * size.width);
  const by = angle(from) - angle(to);
  return Math.atan2(Math.sin(by), Math.cos(by));
}

/** So much of a value as is beyond a least one, on its side of zero. */
export const beyond = (value: number, least: number) =>
  Math.sign(value) * Math.max(0, Math.abs(value) - least);
