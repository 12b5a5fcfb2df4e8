import { Vector3 } from "three";
import { along, looking, type Pose } from "../pose";

/** What moves the eye by keys instead of by drags about a point: feet, or wings. */
export interface Mover {
  /** Whether the next frame will differ from this one. */
  readonly busy: boolean;
  /** When moving was first asked for that no frame has taken yet, in the page's milliseconds; or null. */
  readonly askedAt: number | null;
  /** Move on from one time of the page to a later one, in milliseconds; whether the pose changed. */
  tick(fromMs: number, toMs: number, pose: Pose): boolean;
  /** A drag over pixels to the right and up, of a view so wide: what was under the cursor stays under it. */
  look(dx: number, dy: number, width: number, pose: Pose): void;
  /** Notches of the wheel: the speed, never a jump. */
  wheel(notches: number): void;
  /** A thumb on the left half pushes so far (-1 to 1) ahead and aside; null when it lets go. */
  push(by: { x: number; y: number } | null): void;
}

const STEEPEST_DEG = 85;

/** Which way one looks, as bearing and tilt. */
export class Heading {
  constructor(
    public bearingDeg: number,
    public tiltDeg: number,
  ) {}

  static of(pose: Pose): Heading {
    const { bearingDeg, tiltDeg } = looking(pose);
    return new Heading(bearingDeg, Math.max(-STEEPEST_DEG, Math.min(STEEPEST_DEG, tiltDeg)));
  }

  turn(bearingDeg: number, tiltDeg: number): void {
    this.bearingDeg = (this.bearingDeg + bearingDeg + 360) % 360;
    this.tiltDeg = Math.max(-STEEPEST_DEG, Math.min(STEEPEST_DEG, this.tiltDeg + tiltDeg));
  }

  /** Turn as a drag does, to the right and up, over a view so wide and an angle of view across it. */
  drag(dx: number, dy: number, width: number, angleDeg: number): void {
    const perPixel = angleDeg / Math.max(1, width);
    this.turn(-dx * perPixel, dy * perPixel);
  }

  get forward(): Vector3 {
    return along(this.bearingDeg, this.tiltDeg).forward;
  }

  /** Where one goes on the level: ahead, and to the right. */
  get level(): { ahead: Vector3; right: Vector3 } {
    const ahead = along(this.bearingDeg, 0).forward;
    return { ahead, right: new Vector3(ahead.y, -ahead.x, 0) };
  }

  /** Put a pose's eye at a point, looking this way. */
  put(pose: Pose, eye: Vector3): void {
    const { forward, up } = along(this.bearingDeg, this.tiltDeg);
    pose.eye.copy(eye);
    pose.target.copy(eye).addScaledVector(forward, 2);
    pose.up.copy(up);
  }
}
