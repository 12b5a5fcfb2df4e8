import type { Vector3 } from "three";
import type { Pose } from "../pose";
import type { Cause, Habits, NavigationHost } from "./host";
import type { Backed } from "./inside";

/** What gestures move: a pose, as its owner likes it to be moved. */
export interface Hand {
  readonly pose: Pose;
  readonly habits: Habits;
  readonly host: NavigationHost;
  /** The pose was changed, by what. */
  moved(cause: Cause): void;
  /** So much of a way as stays in the room that the eye is in, and whether a wall ended it. */
  keptWay(wanted: Vector3): Backed;
}
