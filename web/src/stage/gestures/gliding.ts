import { between, copyPose, type Pose } from "../pose";

const GLIDE_MS = 350;

/** A way from one pose to another, slow at both ends. */
export class Glide {
  private readonly from: Pose;
  readonly to: Pose;

  constructor(
    from: Pose,
    to: Pose,
    private readonly startMs: number,
  ) {
    this.from = copyPose(from);
    this.to = copyPose(to);
  }

  /** Where it is at a time of the page, and whether it has arrived. */
  at(nowMs: number): { pose: Pose; arrived: boolean } {
    const share = Math.min(1, (nowMs - this.startMs) / GLIDE_MS);
    if (share >= 1) return { pose: copyPose(this.to), arrived: true };
    return { pose: between(this.from, this.to, share * share * (3 - 2 * share)), arrived: false };
  }
}
