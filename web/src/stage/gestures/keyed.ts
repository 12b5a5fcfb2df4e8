import type { Mover } from "../movers/mover";
import type { Pose } from "../pose";
import type { Cause } from "./host";

/** A frame that takes longer makes up for so much of its time only. */
const LONGEST_FRAME_MS = 10_000;

/** Somebody who moves the eye by keys: then drags look around, and the wheel changes the speed. */
export class Keyed {
  private going = false;

  constructor(
    readonly by: Mover,
    readonly cause: Cause,
    /** Coming to stand somewhere is a jump with a cause of its own. */
    private arriving: boolean,
  ) {}

  /** Move on from the last frame to this one; what moved the pose, or null where nothing did. */
  tick(lastMs: number, nowMs: number, pose: Pose): Cause | null {
    // The first frame after a rest has no time to make up for but that since a key went down.
    const since = this.going ? lastMs : Math.min(nowMs, this.by.askedAt ?? nowMs);
    const moved = this.by.tick(Math.max(since, nowMs - LONGEST_FRAME_MS), nowMs, pose);
    const cause = this.arriving ? "went" : this.cause;
    if (moved) this.arriving = false;
    this.going = this.by.busy;
    return moved ? cause : null;
  }
}
