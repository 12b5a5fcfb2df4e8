import { Vector2, type Vector3 } from "three";
import type { Gesture, Press, WheelTurn } from "../gesture";
import type { Mover } from "../movers/mover";
import { copyPose, forward, type Pose } from "../pose";
import { Glide } from "./gliding";
import type { Hand } from "./hand";
import type { Cause, Habits, NavigationHost } from "./host";
import { type Backed, Inside } from "./inside";
import { Keyed } from "./keyed";
import { Looking, Thumb } from "./looking";
import { around, beyond, uprighten } from "./moves";
import { Panning } from "./panning";
import { Turning } from "./turning";
import { Zooming } from "./zooming";

const CLICK_PX = 4;
/** A finger or pen that rests for so long asks what can be done there. */
const LONG_MS = 550;
/** Two fingers that spread or pan go around each other by less than this (15 degrees). */
const TWIST_RAD = Math.PI / 12;
const LONGEST_TICK_MS = 100;

/** A button or finger that is down, and what it will have done. */
interface Drag {
  pointer: number;
  button: number;
  start: Vector2;
  last: Vector2;
  gesture: Gesture;
  /** What the view turns about next, once it was moved by this. */
  anchor: Vector3;
  /** Whether it moves the eye, which a locked view does not let it. */
  moves: boolean;
  /** Whether the cursor has gone too far for a click. */
  strayed: boolean;
  moved: boolean;
}

/** Whose turn it is to move the eye of a view: a gesture, a glide, or somebody's keys. */
export class Navigation implements Hand {
  habits: Habits = { wheelButton: "pan", device: "mouse", instant: false, tumble: false, keepInside: true };
  /** A locked view stays as it is until it is unlocked. */
  locked = false;
  cause: Cause = "went";
  readonly inside: Inside;
  private readonly zooming: Zooming;
  private drag: Drag | null = null;
  /** So far two fingers have gone around each other, clockwise. */
  private twist = 0;
  private lastPivot: Vector3 | null = null;
  /** Where the mouse was seen last over the view; null while it is elsewhere. */
  private pointer: Vector2 | null = null;
  private keyed: Keyed | null = null;
  private pinned: Vector3 | null = null;
  private glide: Glide | null = null;
  private lastTick = 0;
  private thumb: Thumb | null = null;
  private readonly touches = new Map<number, Vector2>();
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    public pose: Pose,
    readonly host: NavigationHost,
  ) {
    this.inside = new Inside((from, to) => host.clear(from, to));
    this.zooming = new Zooming(this, this.inside);
  }

  moved(cause: Cause): void {
    this.cause = cause;
    this.host.moved(this.pose);
  }

  /** Ask again what is under the cursor, where the eye moved under it. */
  askHovered(): void {
    if (this.pointer && !this.drag) this.host.hovered(this.pointer);
  }

  /** Whether the next frame will differ from this one. */
  get busy(): boolean {
    return this.glide !== null || this.zooming.busy || (!this.locked && this.keyed?.by.busy === true);
  }

  get dragging(): boolean {
    return this.drag?.moved === true;
  }

  /** Let the eye be moved by keys, or again by drags about points. */
  setMover(by: Mover | null, cause: Cause = "walked", arriving = false): void {
    this.keyed = by && new Keyed(by, cause, arriving);
    if (by) this.pose.throughM = 0;
    this.stop();
    if (by) this.host.moved(this.pose);
  }

  private leaveMover(): void {
    if (!this.keyed) return;
    this.keyed = null;
    this.host.moverLeft();
  }

  /** Nothing is still to come. */
  private stop(): void {
    this.glide = null;
    this.zooming.stop();
  }

  /** Go to a pose, gliding there unless it is to be at once. */
  go(to: Pose, atOnce = false, cause: Cause = "went"): void {
    this.leaveMover();
    this.stop();
    if (atOnce || this.habits.instant) this.pose = copyPose(to);
    else this.glide = new Glide(this.pose, to, performance.now());
    this.lastPivot = null;
    this.moved(cause);
  }

  /** Where the eye is, or will be once it has glided there. */
  get goal(): Pose {
    return copyPose(this.glide?.to ?? this.pose);
  }

  /** Be at the end of a glide. */
  arrive(): void {
    if (!this.glide) return;
    this.pose = this.glide.to;
    this.glide = null;
    this.host.moved(this.pose);
  }

  /** Take a pose at once, in the middle of a drag somewhere else on the page. */
  set(to: Pose, cause: Cause): void {
    if (this.locked) return;
    this.leaveMover();
    this.stop();
    this.pose = copyPose(to);
    this.moved(cause);
  }

  /** Everything lies so much further than before: it is counted from another origin. */
  rebase(by: Vector3): void {
    this.arrive();
    this.zooming.stop();
    for (const point of [this.pose.eye, this.pose.target, this.pinned, this.lastPivot, this.drag?.anchor])
      point?.add(by);
    if (this.pinned) this.host.pivotShown(this.pinned);
    this.host.moved(this.pose);
  }

  /** Pin the point that the view turns about, or let it go. */
  pin(at: Vector3 | null): void {
    this.pinned = at;
    this.host.pivotShown(at);
  }

  get pinnedAt(): Vector3 | null {
    return this.pinned;
  }

  /** Where the view would turn about without a cursor. */
  get pivot(): Vector3 {
    return this.pinned ?? this.host.pickedCentre() ?? this.lastPivot ?? this.host.fallbackPivot();
  }

  /** Move on by the time since the last frame. */
  tick(now: number): void {
    const cause = this.locked ? null : this.keyed?.tick(this.lastTick, now, this.pose);
    if (cause) this.moved(cause);
    const passed = Math.min(LONGEST_TICK_MS, now - this.lastTick);
    this.lastTick = now;
    if (this.glide) {
      const { pose, arrived } = this.glide.at(now);
      this.pose = pose;
      if (arrived) this.glide = null;
      this.host.moved(this.pose);
    }
    this.zooming.tick(passed);
  }

  private px(a: Vector2, b: Vector2): number {
    const { width, height } = this.host.size();
    return Math.hypot(((a.x - b.x) * width) / 2, ((a.y - b.y) * height) / 2);
  }

  down(press: Press): void {
    this.stop();
    if (press.kind === "touch") this.touches.set(press.pointer, press.at);
    this.twist = 0;
    if (this.keyed && press.kind === "touch" && press.at.x < 0) {
      this.thumb = new Thumb(press.pointer, this, this.keyed.by, press.at);
      return;
    }
    const { gesture, anchor, moves } = this.gestureOf(press);
    const { pointer, button, at } = press;
    this.drag = {
      pointer,
      button,
      start: at.clone(),
      last: at,
      gesture,
      anchor,
      moves,
      strayed: false,
      moved: false,
    };
    clearTimeout(this.resting);
    if (press.kind !== "mouse" && button === 0) this.resting = setTimeout(this.rested, LONG_MS);
  }

  /** A finger has stayed where it came down: it asks, and does nothing more. */
  private readonly rested = (): void => {
    const { drag } = this;
    if (!drag || drag.strayed || this.touches.size > 1) return;
    this.drag = null;
    this.host.asked(drag.start);
  };

  /** Clicked twice: one goes there. */
  twice(at: Vector2, adds: boolean): void {
    if (!adds && !this.locked) this.host.entered(at);
  }

  private gestureOf(press: Press): Pick<Drag, "gesture" | "anchor" | "moves"> {
    const drawn = press.button === 0 && this.touches.size < 2 ? this.host.toolDrag(press.at) : null;
    if (drawn) return { gesture: drawn, anchor: this.pivot, moves: false };
    const hit = this.host.pointAt(press.at);
    if (this.keyed) {
      const gesture = new Looking(this, this.keyed.by, this.keyed.cause);
      return { gesture, anchor: hit ?? this.pivot, moves: true };
    }
    const wheelPans = (this.habits.wheelButton === "pan") !== press.shift;
    const pans =
      press.button === 2 || (press.button === 1 && wheelPans) || this.touches.size > 1 || !this.host.turns;
    const anchor = (pans ? hit : (this.pinned ?? hit)) ?? this.pivot;
    return { gesture: new (pans ? Panning : Turning)(this, anchor), anchor, moves: true };
  }

  move(press: Press): void {
    const { at } = press;
    if (this.thumb?.pointer === press.pointer) {
      this.thumb.move(at);
      this.host.moved(this.pose);
      return;
    }
    if (!this.keyed && this.touches.size > 1 && this.touches.has(press.pointer)) {
      this.pinch(press.pointer, at);
      return;
    }
    this.pointer = press.kind === "mouse" ? at : null;
    const drag = this.drag;
    if (!drag) {
      this.host.hovered(at);
      return;
    }
    if (press.pointer !== drag.pointer) return;
    drag.strayed ||= this.px(at, drag.start) >= CLICK_PX;
    if (!drag.strayed || (this.locked && drag.moves)) return;
    if (!drag.moved) {
      drag.moved = true;
      this.host.hovered(null);
      drag.gesture.begin?.();
    }
    drag.gesture.move(drag.last, at, press);
    drag.last = at;
  }

  up(press: Press, broken: boolean): void {
    clearTimeout(this.resting);
    this.touches.delete(press.pointer);
    if (this.thumb?.pointer === press.pointer) {
      this.thumb.end();
      this.thumb = null;
      return;
    }
    const drag = this.drag;
    this.drag = null;
    this.host.pivotShown(this.pinned);
    if (!drag) return;
    if (drag.moved) {
      if (!broken) this.lastPivot = drag.anchor;
      drag.gesture.end?.(broken);
      this.host.moved(this.pose);
    } else if (!broken && !drag.strayed) {
      if (drag.button === 0) this.host.clicked(drag.start, press.adds);
      if (drag.button === 2) this.host.asked(drag.start);
    }
  }

  leave(): void {
    this.pointer = null;
    this.host.hovered(null);
  }

  /** Two fingers move the view along with their middle, zoom as they spread, and turn it as they go around each other. */
  private pinch(pointer: number, at: Vector2): void {
    const before = this.touches.get(pointer);
    const other = [...this.touches].find(([id]) => id !== pointer)?.[1];
    if (!before || !other || this.locked) return;
    const spread = this.px(at, other) / Math.max(1, this.px(before, other));
    const middle = (one: Vector2) => one.clone().add(other).multiplyScalar(0.5);
    if (this.drag) {
      new Panning(this, this.drag.anchor).move(middle(before), middle(at), { through: false });
      this.drag.moved = true;
    }
    this.zooming.bySpread(spread, middle(at));
    if (this.host.turns) this.twisted(around(other, before, at, this.host.size()));
    this.touches.set(pointer, at);
  }

  /** Two fingers have gone around each other by an angle: beyond a little the view turns about what is between them. */
  private twisted(angle: number): void {
    const before = beyond(this.twist, TWIST_RAD);
    this.twist += angle;
    const by = beyond(this.twist, TWIST_RAD) - before;
    const { width, height } = this.host.size();
    const to = new Vector2((-by * 2 * height) / (Math.PI * width), 0);
    if (by) new Turning(this, this.drag?.anchor ?? this.pivot).move(new Vector2(), to, { through: false });
  }

  wheel(turn: WheelTurn): void {
    if (this.locked) return;
    if (this.habits.device === "trackpad" && !turn.pinched) {
      const { width, height } = this.host.size();
      const by = new Vector2((-2 * turn.acrossPx) / width, (2 * turn.alongPx) / height);
      const anchor = this.host.pointAt(turn.at) ?? this.pivot;
      new Panning(this, anchor).move(turn.at, turn.at.clone().add(by), turn);
      return;
    }
    if (this.keyed) {
      this.keyed.by.wheel(-turn.alongPx / 100);
      return;
    }
    this.glide = null;
    this.zooming.wheel(turn);
    this.moved("zoomed");
  }

  /** Lean the view to its right by an angle, about the line of sight. */
  roll(angleDeg: number): void {
    if (this.locked) return;
    this.pose.up.applyAxisAngle(forward(this.pose), (-angleDeg * Math.PI) / 180);
    this.moved("turned");
  }

  /** Let verticals stand upright again. */
  upright(): void {
    if (this.locked) return;
    uprighten(this.pose);
    this.moved("turned");
  }

  /** Zoom at the middle of the view by pixels of a handle, without steps. */
  zoomByHandle(px: number): void {
    if (!this.locked) this.zooming.byHandle(px);
  }

  keptWay(wanted: Vector3): Backed {
    const { eye, projection, throughM } = this.pose;
    if (!this.habits.keepInside || projection === "parallel" || throughM > 0)
      return { way: wanted, kept: false };
    const gone = this.inside.back(eye, wanted);
    if (gone.kept) this.host.kept(eye.clone().add(gone.way));
    return gone;
  }

  /** A pose whose eye does not leave the room that the eye is in, where it would back out of it. */
  keptInside(to: Pose): Pose {
    if (to.projection === "parallel") return to;
    const wanted = to.eye.clone().sub(this.pose.eye);
    if (wanted.dot(forward(this.pose)) >= 0) return to;
    const { way, kept } = this.keptWay(wanted);
    return kept ? { ...to, eye: this.pose.eye.clone().add(way) } : to;
  }
}
