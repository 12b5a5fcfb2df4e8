import { Vector3 } from "three";
import type { Pose } from "../pose";
import type { Asked, HeldKeys } from "./heldKeys";
import { Heading, type Mover } from "./mover";

export interface FlyingNews {
  speed(metresPerSecond: number): void;
  /** How far a sight line from a point goes before it meets something, up to its length. */
  clear(from: Vector3, to: Vector3): number;
  stopped(): void;
}

const TURN_DEG_S = 70;
const EASE_S = 0.18;
const FAST = 3;
const NOTCH = 1.2;
/** So much of the distance to what is ahead is flown in a second. */
const SHARE = 0.5;
const LEAST_MS = 0.6;
const MOST_MS = 60;
const FAR_M = 120;
const CLOSEST_M = 0.3;

/** No feet: up, down and through, in proportion to what is around; stops at surfaces if that is wanted. */
export class Flying implements Mover {
  private readonly heading: Heading;
  private readonly velocity = new Vector3();
  private gain = 1;
  private fresh = false;
  stops = false;

  constructor(
    pose: Pose,
    private readonly keys: HeldKeys,
    private readonly news: FlyingNews,
  ) {
    this.heading = Heading.of(pose);
    this.news.speed(this.speed(pose.eye));
  }

  get busy(): boolean {
    return this.fresh || this.keys.any || this.velocity.length() > 0.01;
  }

  look(dx: number, dy: number, width: number, pose: Pose): void {
    this.heading.drag(dx, dy, width, pose.angleDeg);
    this.fresh = true;
  }

  wheel(notches: number): void {
    this.gain = Math.max(0.1, Math.min(10, this.gain * NOTCH ** notches));
  }

  push(by: { x: number; y: number } | null): void {
    this.keys.thumb = by;
  }

  /** How fast one flies here: in proportion to the distance of what is ahead. */
  private speed(eye: Vector3, fast = false): number {
    const ahead = eye.clone().addScaledVector(this.heading.forward, FAR_M);
    const pace = Math.max(LEAST_MS, Math.min(MOST_MS, this.news.clear(eye, ahead) * SHARE));
    return pace * this.gain * (fast ? FAST : 1);
  }

  get askedAt(): number | null {
    return this.keys.changedAt;
  }

  private wanted(eye: Vector3, { ahead, aside, rise, fast }: Asked): Vector3 {
    const way = this.heading.forward
      .multiplyScalar(ahead)
      .addScaledVector(this.heading.level.right, aside)
      .add(new Vector3(0, 0, rise));
    if (way.lengthSq() === 0) return way;
    const speed = this.speed(eye, fast);
    this.news.speed(speed);
    return way.setLength(speed * Math.min(1, way.length()));
  }

  tick(fromMs: number, toMs: number, pose: Pose): boolean {
    const eye = pose.eye.clone();
    let turned = false;
    for (const asked of this.keys.asked(fromMs, toMs)) {
      const turn = asked.turn * TURN_DEG_S * asked.seconds;
      this.heading.turn(turn, 0);
      turned ||= turn !== 0;
      this.velocity.lerp(this.wanted(eye, asked), 1 - Math.exp(-asked.seconds / EASE_S));
      const step = this.velocity.clone().multiplyScalar(asked.seconds);
      if (this.stops && step.lengthSq() > 0) this.stopAtSurfaces(eye, step);
      eye.add(step);
    }
    const moved = eye.distanceToSquared(pose.eye) > 1e-10 || turned || this.fresh;
    this.fresh = false;
    if (moved) this.heading.put(pose, eye);
    return moved;
  }

  private stopAtSurfaces(eye: Vector3, step: Vector3): void {
    const length = step.length();
    const reach = length + CLOSEST_M;
    const clear = this.news.clear(eye, eye.clone().addScaledVector(step, reach / length));
    if (clear >= reach) return;
    step.setLength(Math.max(0, clear - CLOSEST_M));
    this.velocity.set(0, 0, 0);
    this.news.stopped();
  }
}
