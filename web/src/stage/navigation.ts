import { Quaternion, Vector2, Vector3 } from "three";
import { between, copyPose, forward, type Pose } from "./pose";
import type { Mover } from "./walk/mover";

/** What navigation needs of the stage. */
export interface NavigationHost {
  /** What takes the mouse, wheel and fingers. */
  element: HTMLElement;
  /** The view's size in CSS pixels; its top left is the element's. */
  size(): { width: number; height: number };
  /** Whether drags may turn the view; otherwise they move it as paper is moved. */
  turns: boolean;
  /** The first solid point under a place on the canvas (-1 to 1), or null. */
  pointAt(at: Vector2): Vector3 | null;
  /** The ray's direction and origin at a place on the canvas. */
  rayAt(at: Vector2): { origin: Vector3; direction: Vector3 };
  /** Where to turn about when nothing is under the cursor. */
  fallbackPivot(): Vector3;
  /** The centre of what is picked, or null. */
  pickedCentre(): Vector3 | null;
  moved(pose: Pose): void;
  pivotShown(pivot: Vector3 | null): void;
  clicked(at: Vector2, add: boolean): void;
  hovered(at: Vector2 | null): void;
  stopped(): void;
  /** How far it is from one point to another before something that is shown is met, up to there. */
  clear(from: Vector3, to: Vector3): number;
  /** The eye was kept inside the room it is in. */
  kept(): void;
  /** Something else took the eye away from who moved it by keys. */
  moverLeft(): void;
  /** A region is being drawn with the left button, or was. */
  region(from: Vector2, to: Vector2, done: boolean): void;
}

const CLICK_PX = 4;
const CLOSEST_M = 0.05;
const NOTCH = 0.82;
/** A notch of the wheel goes at least so far while going through surfaces. */
const PASSING_M = 0.35;
const TURN_PER_HEIGHT = Math.PI;
const STEEPEST = Math.PI / 2 - 0.002;
/** So many pixels of the zoom handle are a notch of the wheel. */
const HANDLE_PX = 24;
/** What has a ceiling nearer than this is a room, and a wall keeps the eye so far from it. */
const ROOM_M = 12;
const WALL_M = 0.2;
const GLIDE_MS = 350;
const EASE_MS = 90;
/** So far a thumb goes for full speed, in pixels. */
const THUMB_PX = 60;
const FIRST_FRAME_MS = 16;
const LONGEST_FRAME_MS = 600;

/** How somebody likes to move; none of it changes where things are. */
export interface Habits {
  /** What the wheel button does; Shift with it does the other. */
  wheelButton: "pan" | "orbit";
  /** Two fingers on a trackpad pan; a mouse's wheel zooms. */
  device: "mouse" | "trackpad";
  /** Go at once instead of gliding. */
  instant: boolean;
  /** Zooming out does not leave the room that the eye is in. */
  keepInside: boolean;
  /** Turn freely, over the top as well; otherwise verticals stay upright. */
  tumble: boolean;
}

/** What brought the eye where it is. */
export type Cause = "turned" | "panned" | "zoomed" | "went" | "walked" | "flew";

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
  /** The thumb that pushes the body on, on the left half of the view. */
  private thumb: { pointer: number; start: Vector2 } | null = null;
  private readonly touches = new Map<number, Vector2>();

  constructor(
    public pose: Pose,
    private readonly host: NavigationHost,
  ) {
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
    return this.glide !== null || Math.abs(this.pendingZoom) > 1e-4 || (this.mover?.by.busy ?? false);
  }

  get dragging(): boolean {
    return this.drag?.moved === true;
  }

  /** Let the eye be moved by keys, or again by drags about points. */
  setMover(by: Mover | null, cause: Cause = "walked", arriving = false): void {
    this.mover = by && { by, cause, arriving, going: false };
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
    this.moveByKeys(now - this.lastTick);
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

  private moveByKeys(sinceMs: number): void {
    const { mover } = this;
    if (!mover || this.locked) return;
    // The first frame after a rest has no time to make up for.
    const passed = mover.going ? Math.min(LONGEST_FRAME_MS, sinceMs) : FIRST_FRAME_MS;
    if (mover.by.tick(passed / 1000, this.pose)) {
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

  /** Turn eye and target about a pivot; tilt stops before straight up and down. */
  private orbit(pivot: Vector3, by: Vector2): void {
    const pose = this.pose;
    const { width, height } = this.host.size();
    const yaw = (-by.x * (width / height) * TURN_PER_HEIGHT) / 2;
    const f = forward(pose);
    if (this.habits.tumble) {
      this.tumble(pivot, yaw, (by.y * TURN_PER_HEIGHT) / 2);
      return;
    }
    const tilt = Math.asin(Math.max(-1, Math.min(1, -f.z)));
    const wished = tilt - (by.y * TURN_PER_HEIGHT) / 2;
    const pitch = tilt - Math.max(-STEEPEST, Math.min(STEEPEST, wished));
    const right = new Vector3().crossVectors(f, pose.up).normalize();
    const turn = new Quaternion()
      .setFromAxisAngle(new Vector3(0, 0, 1), yaw)
      .multiply(new Quaternion().setFromAxisAngle(right, pitch));
    for (const point of [pose.eye, pose.target]) point.sub(pivot).applyQuaternion(turn).add(pivot);
    pose.up.applyQuaternion(turn);
    this.level();
    this.host.moved(pose);
  }

  /** Turn about the screen's own axes, whatever is up. */
  private tumble(pivot: Vector3, yaw: number, pitch: number): void {
    const pose = this.pose;
    const right = new Vector3().crossVectors(forward(pose), pose.up).normalize();
    const turn = new Quaternion()
      .setFromAxisAngle(pose.up.clone().normalize(), yaw)
      .multiply(new Quaternion().setFromAxisAngle(right, pitch));
    for (const point of [pose.eye, pose.target]) point.sub(pivot).applyQuaternion(turn).add(pivot);
    pose.up.applyQuaternion(turn).normalize();
    this.host.moved(pose);
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
    this.level();
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

  /** Keep verticals upright: the up vector stays in the vertical plane of the line of sight. */
  private level(): void {
    const f = forward(this.pose);
    if (Math.abs(f.z) > 0.99999) return;
    const right = new Vector3(f.y, -f.x, 0).normalize();
    this.pose.up.crossVectors(right, f).normalize();
  }

  /** Move so that the anchor goes from one place on the canvas to another. */
  private pan(anchor: Vector3, from: Vector2, to: Vector2): void {
    const pose = this.pose;
    const f = forward(pose);
    const onPlane = (at: Vector2): Vector3 => {
      const { origin, direction } = this.host.rayAt(at);
      const reach = anchor.clone().sub(origin).dot(f) / Math.max(1e-6, direction.dot(f));
      return origin.clone().addScaledVector(direction, reach);
    };
    const shift = onPlane(from).sub(onPlane(to));
    pose.eye.add(shift);
    pose.target.add(shift);
    this.host.moved(pose);
  }

  /** So much of a zoom out as stays in the room: with a floor below and a ceiling above, walls keep the eye in. */
  private insideShare(point: Vector3, share: number): number {
    const { eye } = this.pose;
    if (!this.habits.keepInside) return share;
    const roofed = [1, -1].every((up) => {
      const end = eye.clone().setZ(eye.z + up * ROOM_M);
      return this.host.clear(eye, end) < ROOM_M;
    });
    if (!roofed) return share;
    const back = eye.clone().sub(point).multiplyScalar(-share);
    const length = back.length();
    const reach = length + WALL_M;
    const clear = this.host.clear(eye, eye.clone().addScaledVector(back, reach / length));
    if (clear >= reach) return share;
    this.pendingZoom = 0;
    this.host.kept();
    return (share * Math.max(0, clear - WALL_M)) / length;
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
    if (share < 0 && !this.passing) share = this.insideShare(point, share);
    pose.eye.addScaledVector(point.clone().sub(pose.eye), share);
    pose.target.copy(pose.eye).addScaledVector(f, Math.max(0.5, reach * (1 - share)));
    pose.heightM *= 1 - share;
    this.host.moved(pose);
  }
}
