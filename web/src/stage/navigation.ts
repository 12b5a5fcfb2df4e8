import { Vector2, type Vector3 } from "three";
import { Inside } from "./inside";
import { orbit, shift, tumble, uprighten } from "./moves";
import type { Cause, Habits, NavigationHost } from "./navigationHost";
import { between, copyPose, forward, type Pose } from "./pose";
import type { Mover } from "./walk/mover";

const CLICK_PX = 4;
const CLOSEST_M = 0.05;
const NOTCH = 0.82;
/** A notch of the wheel goes at least so far while going through surfaces. */
const PASSING_M = 0.35;
const TURN_PER_HEIGHT = Math.PI;
/** So many pixels of the zoom handle are a notch of the wheel. */
const HANDLE_PX = 24;
const GLIDE_MS = 350;
const EASE_MS = 90;
/** So far a thumb goes for full speed, in pixels. */
const THUMB_PX = 60;
/** A frame that takes longer makes up for so much of its time only. */
const LONGEST_FRAME_MS = 10_000;

type Drag = {
  kind: "orbit" | "pan" | "region";
  pointer: number;
  last: Vector2;
  start: Vector2;
  anchor: Vector3;
  moved: boolean;
};

/** Turns mouse, wheel and touch into poses. Everything happens about the point under the cursor. */
export class Navigation {
  private drag: Drag | null = null;
  private lastPivot: Vector3 | null = null;
  private pendingZoom = 0;
  private zoomAt = new Vector2();
  habits: Habits = { wheelButton: "pan", device: "mouse", instant: false, tumble: false, keepInside: true };
  /** A locked view stays as it is until it is unlocked. */
  locked = false;
  /** Whether the wheel turns with the key held that goes through surfaces. */
  private passing = false;
  cause: Cause = "went";
  /** Whether the left button draws regions; everything else moves as always. */
  drawsRegions = false;
  /** Who moves the eye by keys: then drags look around, and the wheel changes the speed. */
  private mover: { by: Mover; cause: Cause; arriving: boolean; going: boolean } | null = null;
  private pinned: Vector3 | null = null;
  private glide: { from: Pose; to: Pose; start: number } | null = null;
  private lastTick = 0;
  readonly inside: Inside;
  /** The thumb that pushes the body on, on the left half of the view. */
  private thumb: { pointer: number; start: Vector2 } | null = null;
  private readonly touches = new Map<number, Vector2>();

  constructor(
    public pose: Pose,
    private readonly host: NavigationHost,
  ) {
    this.inside = new Inside((from, to) => host.clear(from, to));
    const c = host.element;
    c.addEventListener("pointerdown", this.down);
    c.addEventListener("pointermove", this.move);
    c.addEventListener("pointerup", this.up);
    c.addEventListener("pointercancel", this.up);
    c.addEventListener("pointerleave", () => host.hovered(null));
    c.addEventListener("wheel", this.wheel, { passive: false });
    c.addEventListener("contextmenu", (event) => event.preventDefault());
  }

  /** Whether the next frame will differ from this one. */
  get busy(): boolean {
    return this.glide !== null || Math.abs(this.pendingZoom) > 1e-4 || this.movedByKeys;
  }

  private get movedByKeys(): boolean {
    return !this.locked && this.mover?.by.busy === true;
  }

  get dragging(): boolean {
    return this.drag?.moved === true;
  }

  /** Let the eye be moved by keys, or again by drags about points. */
  setMover(by: Mover | null, cause: Cause = "walked", arriving = false): void {
    this.mover = by && { by, cause, arriving, going: false };
    if (by) this.pose.throughM = 0;
    this.glide = null;
    this.pendingZoom = 0;
    if (by) this.host.moved(this.pose);
  }

  private leaveMover(): void {
    if (!this.mover) return;
    this.mover = null;
    this.host.moverLeft();
  }

  /** Go to a pose, gliding there unless it is to be at once. */
  go(to: Pose, atOnce = false): void {
    this.leaveMover();
    this.pendingZoom = 0;
    this.cause = "went";
    if (atOnce || this.habits.instant) {
      this.glide = null;
      this.pose = copyPose(to);
    } else {
      this.glide = { from: copyPose(this.pose), to: copyPose(to), start: performance.now() };
    }
    this.lastPivot = null;
    this.host.moved(this.pose);
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
    this.glide = null;
    this.pendingZoom = 0;
    this.cause = cause;
    this.pose = copyPose(to);
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
    const passed = Math.min(100, now - this.lastTick);
    this.moveByKeys(now);
    this.lastTick = now;
    if (this.glide) {
      const share = Math.min(1, (now - this.glide.start) / GLIDE_MS);
      const eased = share * share * (3 - 2 * share);
      this.pose = share >= 1 ? copyPose(this.glide.to) : between(this.glide.from, this.glide.to, eased);
      if (share >= 1) this.glide = null;
      this.host.moved(this.pose);
    }
    if (Math.abs(this.pendingZoom) > 1e-4) {
      const part = Math.abs(this.pendingZoom) < 0.02 ? 1 : 1 - Math.exp(-passed / EASE_MS);
      const step = this.pendingZoom * part;
      this.pendingZoom -= step;
      this.zoomBy(step);
    }
  }

  private moveByKeys(now: number): void {
    const { mover } = this;
    if (!mover || this.locked) return;
    // The first frame after a rest has no time to make up for but that since a key went down.
    const since = mover.going ? this.lastTick : Math.min(now, mover.by.askedAt ?? now);
    if (mover.by.tick(Math.max(since, now - LONGEST_FRAME_MS), now, this.pose)) {
      // Coming to stand somewhere is a jump with a cause of its own.
      this.cause = mover.arriving ? "went" : mover.cause;
      mover.arriving = false;
      this.host.moved(this.pose);
    }
    mover.going = mover.by.busy;
  }

  private at(event: PointerEvent | WheelEvent): Vector2 {
    const { left, top } = this.host.element.getBoundingClientRect();
    const { width, height } = this.host.size();
    return new Vector2(((event.clientX - left) / width) * 2 - 1, 1 - ((event.clientY - top) / height) * 2);
  }

  private px(a: Vector2, b: Vector2): number {
    const { width, height } = this.host.size();
    return Math.hypot(((a.x - b.x) * width) / 2, ((a.y - b.y) * height) / 2);
  }

  private readonly down = (event: PointerEvent): void => {
    this.host.element.setPointerCapture(event.pointerId);
    const at = this.at(event);
    this.glide = null;
    this.pendingZoom = 0;
    if (event.pointerType === "touch") this.touches.set(event.pointerId, at);
    if (this.mover && event.pointerType === "touch" && at.x < 0) {
      this.thumb = { pointer: event.pointerId, start: at };
      return;
    }
    const wheelPans = (this.habits.wheelButton === "pan") !== event.shiftKey;
    const region = this.drawsRegions && event.button === 0;
    const pan =
      event.button === 2 ||
      (event.button === 1 && wheelPans) ||
      this.touches.size > 1 ||
      (!this.host.turns && !region);
    const hit = this.host.pointAt(at);
    const anchor = (pan ? hit : (this.pinned ?? hit)) ?? this.pivot;
    this.drag = {
      kind: pan ? "pan" : region ? "region" : "orbit",
      pointer: event.pointerId,
      last: at,
      start: at.clone(),
      anchor,
      moved: false,
    };
  };

  private readonly move = (event: PointerEvent): void => {
    const at = this.at(event);
    if (this.thumb?.pointer === event.pointerId) {
      const { width, height } = this.host.size();
      const by = at.clone().sub(this.thumb.start);
      const reach = (px: number) => Math.max(-1, Math.min(1, px / THUMB_PX));
      this.mover?.by.push({ x: reach((by.x * width) / 2), y: reach((by.y * height) / 2) });
      this.host.moved(this.pose);
      return;
    }
    if (!this.mover && this.touches.size > 1 && this.touches.has(event.pointerId)) {
      this.pinch(event.pointerId, at);
      return;
    }
    const drag = this.drag;
    if (!drag) {
      this.host.hovered(at);
      return;
    }
    if (event.pointerId !== drag.pointer) return;
    if (!drag.moved && this.px(at, drag.start) < CLICK_PX) return;
    if (this.locked) return;
    if (!drag.moved) {
      drag.moved = true;
      if (drag.kind !== "region") this.cause = drag.kind === "orbit" ? "turned" : "panned";
      this.host.hovered(null);
      if (drag.kind === "orbit" && !this.mover) this.host.pivotShown(drag.anchor);
    }
    if (this.mover && drag.kind !== "region") {
      const { width, height } = this.host.size();
      const by = at.clone().sub(drag.last);
      this.mover.by.look((by.x * width) / 2, (by.y * height) / 2, width, this.pose);
      drag.last = at;
      this.host.moved(this.pose);
      return;
    }
    if (drag.kind === "orbit") this.orbit(drag.anchor, at.clone().sub(drag.last));
    else if (drag.kind === "pan") this.pan(drag.anchor, drag.last, at);
    else this.host.region(drag.start, at, false);
    drag.last = at;
  };

  private readonly up = (event: PointerEvent): void => {
    this.touches.delete(event.pointerId);
    if (this.thumb?.pointer === event.pointerId) {
      this.thumb = null;
      this.mover?.by.push(null);
      return;
    }
    const drag = this.drag;
    this.drag = null;
    this.host.pivotShown(this.pinned);
    if (!drag || event.type === "pointercancel") return;
    if (drag.moved && drag.kind === "region") {
      this.host.region(drag.start, drag.last, true);
    } else if (drag.moved) {
      this.lastPivot = drag.anchor;
      this.host.moved(this.pose);
    } else if (event.button === 0) {
      this.host.clicked(drag.start, event.shiftKey || event.ctrlKey || event.metaKey);
    }
  };

  private pinch(pointer: number, at: Vector2): void {
    const before = this.touches.get(pointer);
    const other = [...this.touches].find(([id]) => id !== pointer)?.[1];
    if (!before || !other) return;
    const spread = this.px(at, other) / Math.max(1, this.px(before, other));
    const middle = at.clone().add(other).multiplyScalar(0.5);
    const middleBefore = before.clone().add(other).multiplyScalar(0.5);
    if (this.drag) this.pan(this.drag.anchor, middleBefore, middle);
    this.zoomAt = middle;
    this.zoomBy(Math.log(spread) / -Math.log(NOTCH));
    this.touches.set(pointer, at);
    if (this.drag) this.drag.moved = true;
  }

  private readonly wheel = (event: WheelEvent): void => {
    event.preventDefault();
    if (this.locked) return;
    // A pinch on a trackpad comes as a wheel with the control key.
    if (this.habits.device === "trackpad" && !event.ctrlKey) {
      this.panByWheel(event);
      return;
    }
    const px =
      event.deltaMode === 1 ? event.deltaY * 33 : event.deltaMode === 2 ? event.deltaY * 400 : event.deltaY;
    if (this.mover) {
      this.mover.by.wheel(-px / 100);
      return;
    }
    this.cause = "zoomed";
    this.passing = event.altKey;
    this.glide = null;
    this.zoomAt = this.at(event);
    const gain = event.ctrlKey ? 5 : 1;
    this.pendingZoom = Math.max(-8, Math.min(8, this.pendingZoom - (px * gain) / 100));
    this.host.moved(this.pose);
  };

  private panByWheel(event: WheelEvent): void {
    const at = this.at(event);
    const { width, height } = this.host.size();
    const to = new Vector2(at.x - (2 * event.deltaX) / width, at.y + (2 * event.deltaY) / height);
    this.cause = "panned";
    this.pan(this.host.pointAt(at) ?? this.pivot, at, to);
  }

  private orbit(pivot: Vector3, by: Vector2): void {
    const { width, height } = this.host.size();
    const yaw = (-by.x * (width / height) * TURN_PER_HEIGHT) / 2;
    const pitch = (by.y * TURN_PER_HEIGHT) / 2;
    (this.habits.tumble ? tumble : orbit)(this.pose, pivot, yaw, pitch);
    this.host.moved(this.pose);
  }

  /** Lean the view to its right by an angle, about the line of sight. */
  roll(angleDeg: number): void {
    if (this.locked) return;
    this.cause = "turned";
    this.pose.up.applyAxisAngle(forward(this.pose), (-angleDeg * Math.PI) / 180);
    this.host.moved(this.pose);
  }

  /** Let verticals stand upright again. */
  upright(): void {
    if (this.locked) return;
    this.cause = "turned";
    uprighten(this.pose);
    this.host.moved(this.pose);
  }

  /** Zoom at the middle of the view by pixels of a handle, without steps. */
  zoomByHandle(px: number): void {
    if (this.locked) return;
    this.cause = "zoomed";
    this.passing = false;
    this.zoomAt = new Vector2();
    this.zoomBy(px / HANDLE_PX);
  }

  /** Move so that the anchor goes from one place on the canvas to another. */
  private pan(anchor: Vector3, from: Vector2, to: Vector2): void {
    shift(this.pose, anchor, this.host.rayAt(from), this.host.rayAt(to));
    this.host.moved(this.pose);
  }

  /** So much of a way back as stays in the room. */
  private backing(wanted: Vector3): Vector3 {
    const { eye } = this.pose;
    const { way, kept } = this.inside.back(eye, wanted);
    if (kept) {
      this.pendingZoom = 0;
      this.host.kept(eye.clone().add(way));
    }
    return way;
  }

  /** A pose whose eye does not leave the room that the eye is in. */
  keptInside(to: Pose): Pose {
    if (!this.habits.keepInside || to.projection === "parallel") return to;
    const { eye } = this.pose;
    const wanted = to.eye.clone().sub(eye);
    if (wanted.dot(forward(this.pose)) >= 0) return to;
    const { way, kept } = this.inside.back(eye, wanted);
    if (!kept) return to;
    this.host.kept(eye.clone().add(way));
    return { ...to, eye: eye.clone().add(way) };
  }

  /** Zoom by notches towards what is under the cursor, in proportion to its distance. */
  private zoomBy(notches: number): void {
    const pose = this.pose;
    const hit = this.host.pointAt(this.zoomAt);
    const { origin, direction } = this.host.rayAt(this.zoomAt);
    const depth = this.host.fallbackPivot().sub(pose.eye).dot(forward(pose));
    const point = hit ?? origin.clone().addScaledVector(direction, Math.max(depth, 1));
    let share = 1 - NOTCH ** notches;
    if (pose.projection === "parallel") {
      const before = point.clone().sub(pose.eye);
      pose.heightM *= 1 - share;
      const f = forward(pose);
      const across = before.addScaledVector(f, -before.dot(f));
      pose.eye.addScaledVector(across, share);
      pose.target.addScaledVector(across, share);
      this.host.moved(pose);
      return;
    }
    const reach = point.distanceTo(pose.eye);
    if (share > 0 && this.passing) share = Math.max(share, Math.min(1.5, (notches * PASSING_M) / reach));
    else if (share > 0 && reach * (1 - share) < CLOSEST_M) {
      share = Math.max(0, 1 - CLOSEST_M / reach);
      this.pendingZoom = 0;
      if (hit) this.host.stopped();
    }
    const f = forward(pose);
    if (this.passing) pose.throughM = 0;
    let step = point.clone().sub(pose.eye).multiplyScalar(share);
    if (share < 0 && !this.passing && this.habits.keepInside && !pose.throughM) step = this.backing(step);
    if (pose.throughM > 0) {
      const behind = this.inside.behind(f, share * reach, pose.throughM);
      step = behind.way;
      pose.throughM = behind.throughM;
    }
    pose.eye.add(step);
    pose.target.copy(pose.eye).addScaledVector(f, Math.max(0.5, reach * (1 - share)));
    pose.heightM *= 1 - share;
    this.host.moved(pose);
  }
}
