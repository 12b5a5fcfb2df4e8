import { Vector3 } from "three";
import type { Tour as Way } from "../open/walking/tour";
import { between, copyPose, type Pose } from "../stage/pose";

export const HOLD_S = 3;
export const GLIDE_S = 2.5;
const PACE_M_S = 1.5;
/** So much of a way is used to turn from the view that is left, and to the one that is reached. */
const TURN = 0.15;
/** Beyond this share of a glide one sees what is to be seen at its end. */
const CHANGE = 0.5;

interface Leg {
  begin: number;
  seconds: number;
  /** The stop it is at or leaves. */
  from: number;
  moves: boolean;
}

/** Where one is on a tour: the pose, and the stop whose cuts, colours and rules are seen. */
export interface Moment {
  pose: Pose;
  stop: number;
}

const smooth = (share: number) => share * share * (3 - 2 * share);

/** A tour through poses, each looked at for a while, with a glide between two or a way on foot where there is one. */
export class Timeline {
  private readonly legs: readonly Leg[];

  constructor(
    private readonly stops: readonly Pose[],
    private readonly ways: readonly (Way | null)[],
    private readonly eyesM: number,
  ) {
    let begin = 0;
    this.legs = stops.flatMap((_, k) => {
      const way = ways[k];
      const moving = way ? Math.max(GLIDE_S, way.lengthM / PACE_M_S) : GLIDE_S;
      const each: Leg[] = [{ begin, seconds: HOLD_S, from: k, moves: false }];
      begin += HOLD_S;
      if (k + 1 < stops.length) {
        each.push({ begin, seconds: moving, from: k, moves: true });
        begin += moving;
      }
      return each;
    });
  }

  get seconds(): number {
    const last = this.legs.at(-1);
    return last ? last.begin + last.seconds : 0;
  }

  /** When a stop is reached. */
  reached(stop: number): number {
    return this.legs.find(({ from, moves }) => from === stop && !moves)?.begin ?? 0;
  }

  /** Where one is after so many seconds; null for a tour without stops. */
  at(seconds: number): Moment | null {
    const leg = this.legs.findLast(({ begin }) => begin <= Math.max(0, seconds)) ?? this.legs[0];
    const here = leg && this.stops[leg.from];
    if (!leg || !here) return null;
    const next = this.stops[leg.from + 1];
    if (!leg.moves || !next) return { pose: copyPose(here), stop: leg.from };
    const share = Math.min(1, (seconds - leg.begin) / leg.seconds);
    const stop = share < CHANGE ? leg.from : leg.from + 1;
    const way = this.ways[leg.from];
    return { pose: way ? this.onFoot(way, share, here, next) : between(here, next, smooth(share)), stop };
  }

  private onFoot(way: Way, share: number, from: Pose, to: Pose): Pose {
    const metres = share * way.lengthM;
    const eye = way.at(metres).add(new Vector3(0, 0, this.eyesM));
    const look = way.ahead(metres);
    // Stairs are looked along, not at.
    look.z *= 0.25;
    const walking: Pose = {
      ...copyPose(from),
      projection: "perspective",
      eye,
      target: eye.clone().add(look),
    };
    walking.up = new Vector3(0, 0, 1);
    walking.throughM = 0;
    if (share < TURN) return between(from, walking, smooth(share / TURN));
    if (share > 1 - TURN) return between(walking, to, smooth((share - 1 + TURN) / TURN));
    return walking;
  }
}
