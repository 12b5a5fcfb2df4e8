import type { Vector3 } from "three";
import type { Hit } from "./geometry/picking";
import type { SnapKind } from "./geometry/snapping";
import type { Cause } from "./gestures/host";
import type { Pose } from "./pose";
import type { ViewKind } from "./view";

/** What the stage tells those who listen; of the stage itself, or of the drawing beside it. */
export interface StageEvents {
  /** Something is under the cursor, and with a tool for exact points that kind of point is caught. */
  hover(
    component: number,
    at: { x: number; y: number } | null,
    where: ViewKind,
    caught: SnapKind | null,
  ): void;
  pick(component: number, add: boolean, where: ViewKind): void;
  /** It was asked what can be done with what is there; in CSS pixels of the view. */
  asked(hit: Hit, at: { x: number; y: number }, where: ViewKind): void;
  /** Something was clicked twice, to go there. */
  entered(hit: Hit, where: ViewKind): void;
  /** The eye moved; called at most once a frame. */
  moved(pose: Pose, where: ViewKind): void;
  /** Chunks still to come, of how many. */
  streaming(pending: number, total: number, failed: readonly string[]): void;
  stopped(): void;
  /** The eye was kept inside the room it is in, at a point before its wall. */
  kept(at: Vector3): void;
  /** Something else took the eye away from who walked or flew. */
  moverLeft(): void;
  /** The view is locked and was to go somewhere. */
  refused(): void;
  /** The eye has been at rest for a while after it moved. */
  rested(pose: Pose, cause: Cause, where: ViewKind): void;
}
