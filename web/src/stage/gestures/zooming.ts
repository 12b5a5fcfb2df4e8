import { Vector2, type Vector3 } from "three";
import type { WheelTurn } from "../gesture";
import { forward, type Pose } from "../pose";
import type { Hand } from "./hand";
import type { Inside } from "./inside";

const NOTCH = 0.82;
const NOTCH_PX = 100;
const CLOSEST_M = 0.05;
/** A notch of the wheel goes at least so far while going through surfaces. */
const PASSING_M = 0.35;
/** So many pixels of the zoom handle are a notch of the wheel. */
const HANDLE_PX = 24;
const EASE_MS = 90;
const MOST_NOTCHES = 8;
const GAIN = { fine: 0.2, plain: 1, fast: 5 } as const;

/** Zooming towards what is under the cursor, in proportion to its distance. */
export class Zooming {
  private pending = 0;
  private at = new Vector2();
  /** Whether the wheel turns with the key held that goes through surfaces. */
  private passing = false;

  constructor(
    private readonly hand: Hand,
    private readonly inside: Inside,
  ) {}

  /** Whether there is still something of it to come. */
  get busy(): boolean {
    return Math.abs(this.pending) > 1e-4;
  }

  stop(): void {
    this.pending = 0;
  }

  /** Take a turn of the wheel; it comes over the next frames. */
  wheel(turn: WheelTurn): void {
    this.passing = turn.through;
    this.at = turn.at;
    const notches = (turn.alongPx * GAIN[turn.pace]) / NOTCH_PX;
    this.pending = Math.max(-MOST_NOTCHES, Math.min(MOST_NOTCHES, this.pending - notches));
  }

  /** Zoom at the middle of the view by pixels of a handle, without steps. */
  byHandle(px: number): void {
    this.passing = false;
    this.at = new Vector2();
    this.by(px / HANDLE_PX);
  }

  /** Zoom by how much further apart two fingers are, about their middle. */
  bySpread(share: number, at: Vector2): void {
    this.passing = false;
    this.at = at;
    this.by(Math.log(share) / -Math.log(NOTCH));
  }

  /** Do what is to come of it in a frame. */
  tick(passedMs: number): void {
    if (!this.busy) return;
    const part = Math.abs(this.pending) < 0.02 ? 1 : 1 - Math.exp(-passedMs / EASE_MS);
    const step = this.pending * part;
    this.pending -= step;
    this.by(step);
  }

  private by(notches: number): void {
    const { pose, host } = this.hand;
    const hit = host.pointAt(this.at);
    const { origin, direction } = host.rayAt(this.at);
    const depth = host.fallbackPivot().sub(pose.eye).dot(forward(pose));
    const point = hit ?? origin.clone().addScaledVector(direction, Math.max(depth, 1));
    const share = 1 - NOTCH ** notches;
    if (pose.projection === "parallel") this.draw(pose, point, share);
    else this.go(pose, point, notches, share, hit !== null);
    this.hand.moved("zoomed");
  }

  /** A parallel view is drawn larger or smaller. */
  private draw(pose: Pose, point: Vector3, share: number): void {
    const before = point.clone().sub(pose.eye);
    pose.heightM *= 1 - share;
    const f = forward(pose);
    const across = before.addScaledVector(f, -before.dot(f));
    pose.eye.addScaledVector(across, share);
    pose.target.addScaledVector(across, share);
  }

  /** The eye of a perspective goes nearer or back. */
  private go(pose: Pose, point: Vector3, notches: number, wanted: number, solid: boolean): void {
    const reach = point.distanceTo(pose.eye);
    let share = wanted;
    if (share > 0 && this.passing) share = Math.max(share, Math.min(1.5, (notches * PASSING_M) / reach));
    else if (share > 0 && reach * (1 - share) < CLOSEST_M) {
      share = Math.max(0, 1 - CLOSEST_M / reach);
      this.pending = 0;
      if (solid) this.hand.host.stopped();
    }
    const f = forward(pose);
    if (this.passing) pose.throughM = 0;
    let step = point.clone().sub(pose.eye).multiplyScalar(share);
    if (share < 0 && !this.passing && !pose.throughM) step = this.backing(step);
    if (pose.throughM > 0) {
      const behind = this.inside.behind(f, share * reach, pose.throughM);
      step = behind.way;
      pose.throughM = behind.throughM;
    }
    pose.eye.add(step);
    pose.target.copy(pose.eye).addScaledVector(f, Math.max(0.5, reach * (1 - share)));
    pose.heightM *= 1 - share;
  }

  /** So much of a way back as stays in the room. */
  private backing(wanted: Vector3): Vector3 {
    const { way, kept } = this.hand.keptWay(wanted);
    if (kept) this.pending = 0;
    return way;
  }
}
