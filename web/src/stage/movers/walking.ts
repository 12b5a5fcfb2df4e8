import { Vector2, Vector3 } from "three";
import type { Pose } from "../pose";
import type { Floor, Ground } from "./ground";
import type { Asked, HeldKeys } from "./heldKeys";
import { Heading, type Mover } from "./mover";
import { TICK_S, tick, type Walker } from "./walker";

/** What walking tells; points are on the stage, feet on the floor. */
export interface WalkingNews {
  speed(metresPerSecond: number): void;
  /** Something is in the way of going in a direction; null once one moves on. */
  stopped(at: { feet: Vector3; towards: Vector2 } | null): void;
  /** The figure's feet and bearing, null while it is not to be seen. */
  figure(at: { feet: Vector3; bearingDeg: number } | null): void;
  /** How far a sight line from a point goes before it meets something, up to its length. */
  clear(from: Vector3, to: Vector3): number;
}

/** Between the eyes and the top of the head. */
const BROW_M = 0.12;

/** How high above the floor a body so tall has its eyes. */
export const eyesOf = (heightM: number): number => heightM - BROW_M;

const TURN_DEG_S = 90;
const FAST = 2.5;
const SLOWEST = 0.3;
const QUICKEST = 6;
const NOTCH = 1.15;
const EYE_S = 0.2;
/** Who wants to go and for so long has less than this part of the speed is stopped. */
const STUCK = 0.25;
const STOPPED_S = 0.25;
const WANTS_MS = 0.1;
const AHEAD_M = 9;
const BEHIND_M = 2.6;
const LOOK_DOWN_M = 0.5;

/** Feet on the floor: keys, drags and thumbs move a body over the walk map, and the eye with it. */
export class Walking implements Mover {
  readonly heading: Heading;
  behind = false;
  private readonly walker: Walker;
  private eyeM: number;
  private due = 0;
  private barredS = 0;
  private told = false;
  private loadedAt: Vector2;
  private fresh = true;

  constructor(
    private readonly ground: Ground,
    floor: Floor,
    at: Vector3,
    pose: Pose,
    private readonly heightM: number,
    private readonly keys: HeldKeys,
    private readonly news: WalkingNews,
    public speedMs: number,
  ) {
    const feet = ground.height(floor);
    this.walker = { x: at.x, y: at.y, floor, feet, vx: 0, vy: 0, blocked: -1 };
    this.heading = Heading.of(pose);
    // The eye stays where it is, and comes down to the body's once one moves.
    this.eyeM = ground.own(pose.eye).z - feet;
    this.loadedAt = new Vector2(at.x, at.y);
  }

  /** The feet, on the stage. */
  get feet(): Vector3 {
    return this.ground.stage(new Vector3(this.walker.x, this.walker.y, this.walker.feet));
  }

  get busy(): boolean {
    const { vx, vy, feet, floor } = this.walker;
    return this.fresh || this.keys.any || vx !== 0 || vy !== 0 || feet !== this.ground.height(floor);
  }

  /** Show what changed beside the keys: the figure, or the body. */
  refresh(): void {
    this.fresh = true;
  }

  look(dx: number, dy: number, width: number, pose: Pose): void {
    this.heading.drag(dx, dy, width, pose.angleDeg);
    this.refresh();
  }

  wheel(notches: number): void {
    this.speedMs = Math.max(SLOWEST, Math.min(QUICKEST, this.speedMs * NOTCH ** notches));
    this.news.speed(this.speedMs);
  }

  push(by: { x: number; y: number } | null): void {
    this.keys.thumb = by;
  }

  get askedAt(): number | null {
    return this.keys.changedAt;
  }

  private wanted({ ahead, aside, fast }: Asked): Vector2 {
    const { ahead: a, right: r } = this.heading.level;
    const way = new Vector2(a.x * ahead + r.x * aside, a.y * ahead + r.y * aside);
    const speed = this.speedMs * (fast ? FAST : 1) * Math.min(1, way.length());
    return this.ground.ownDirection(way.lengthSq() > 0 ? way.setLength(speed) : way);
  }

  tick(fromMs: number, toMs: number, pose: Pose): boolean {
    const { x, y, feet } = this.walker;
    const { bearingDeg } = this.heading;
    for (const asked of this.keys.asked(fromMs, toMs)) this.go(asked);
    const moved = x !== this.walker.x || y !== this.walker.y || feet !== this.walker.feet;
    if (!moved && bearingDeg === this.heading.bearingDeg && !this.fresh) return false;
    this.fresh = false;
    this.fetchAhead();
    this.place(pose);
    return true;
  }

  /** Turn and go on, a tick at a time, so that one who does both goes in a curve. */
  private go(asked: Asked): void {
    for (let left = asked.seconds; left > 0; left -= TICK_S) {
      const seconds = Math.min(TICK_S, left);
      this.heading.turn(asked.turn * TURN_DEG_S * seconds, 0);
      const wanted = this.wanted(asked);
      if (wanted.lengthSq() > 0)
        this.eyeM += (eyesOf(this.heightM) - this.eyeM) * (1 - Math.exp(-seconds / EYE_S));
      this.due += seconds;
      if (this.due < TICK_S) continue;
      this.due -= TICK_S;
      tick(this.ground, this.walker, wanted.x, wanted.y);
      this.watch(wanted);
    }
  }

  /** Walk as recorded, without time passing; for checking against the core. */
  replay(presses: readonly (readonly [number, number, number])[]): Walker {
    for (const [ticks, vx, vy] of presses)
      for (let k = 0; k < ticks; k++) tick(this.ground, this.walker, vx, vy);
    this.refresh();
    return { ...this.walker };
  }

  private watch(wanted: Vector2): void {
    const { vx, vy, blocked } = this.walker;
    const wants = wanted.length();
    const slow = Math.hypot(vx, vy) < STUCK * wants;
    this.barredS = blocked >= 0 && wants > WANTS_MS && slow ? this.barredS + TICK_S : 0;
    if (this.told && wants > WANTS_MS && !slow) this.tellStop(null);
    else if (!this.told && this.barredS >= STOPPED_S)
      this.tellStop(this.ground.turned(wanted.clone().normalize()));
  }

  private tellStop(towards: Vector2 | null): void {
    this.told = towards !== null;
    this.news.stopped(towards && { feet: this.feet, towards });
  }

  private fetchAhead(): void {
    const here = new Vector2(this.walker.x, this.walker.y);
    if (here.distanceTo(this.loadedAt) < 2) return;
    this.loadedAt = here;
    void this.ground.load(here.x, here.y, AHEAD_M);
  }

  private place(pose: Pose): void {
    const eye = this.feet;
    eye.z += this.eyeM;
    if (!this.behind) {
      this.heading.put(pose, eye);
      this.news.figure(null);
      return;
    }
    // From behind and a little above, nearer where something is in between.
    const from = eye.clone().addScaledVector(this.heading.level.ahead, -BEHIND_M);
    from.z += LOOK_DOWN_M;
    const reach = eye.distanceTo(from);
    const clear = Math.max(0.4, this.news.clear(eye, from) - 0.15);
    this.heading.put(pose, eye.clone().lerp(from, Math.min(1, clear / reach)));
    this.news.figure({ feet: this.feet, bearingDeg: this.heading.bearingDeg });
  }
}
