import { type Box3, type Ray, Vector2, Vector3 } from "three";
import { type Part, StageCamera } from "./camera";
import { type ClipPlane, Clips, clipPlane, NO_CLIPS } from "./clips";
import { type Boxing, sidesOf } from "./geometry/boxed";
import type { Hit } from "./geometry/picking";
import type { Gesture } from "./gesture";
import type { Cause } from "./gestures/host";
import { Navigation } from "./gestures/navigation";
import { listen } from "./gestures/pointers";
import { copyPose, forward, isOpened, type Pose } from "./pose";

const STILL_MS = 120;
/** After so long at rest a place counts as one. */
const PLACE_MS = 600;

/** A rectangle in CSS pixels from the top left of the canvas. */
export interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** What a view needs of the stage it belongs to. */
export interface ViewHost {
  /** Where the view lies on the canvas now. */
  place(): Rectangle;
  first(ray: Ray, clips: Clips): Hit | null;
  /** What cuts the building. */
  clips(): Clips;
  /** The components that a box with such sides means. */
  boxed(sides: readonly ClipPlane[], how: Boxing, clips: Clips): number[];
  bounds(): Box3;
  pickedCentre(): Vector3 | null;
  /** Draw the view in the next frame. */
  ask(): void;
  /** What a tool in hand makes of a drag with the left button, or null. */
  toolDrag(at: Vector2): Gesture | null;
  clicked(hit: Hit | null, add: boolean, at: Vector2): void;
  asked(hit: Hit | null, at: { x: number; y: number }): void;
  entered(hit: Hit | null): void;
  /** Something is under the cursor, at pixels of the view, or nothing; null outside. */
  hovered(hit: Hit | null, at: { x: number; y: number } | null): void;
  pivotShown(at: Vector3 | null): void;
  stopped(): void;
  clear(from: Vector3, to: Vector3): number;
  kept(at: Vector3): void;
  moverLeft(): void;
  /** Whether what is seen is drawn; not before the eye is where it begins. */
  begun(): boolean;
  /** Whether a rest counts: everything is there to be seen. */
  complete(): boolean;
  rested(pose: Pose, cause: Cause): void;
}

/** One of the drawings that may stand beside the stage. */
export type DrawingKind = "drawing" | "second";
/** What a view is for: the stage itself, or a drawing beside it that is moved as paper is. */
export type ViewKind = "stage" | DrawingKind;
/** The drawings that may stand beside the stage, the upper one first. */
export const DRAWINGS: readonly DrawingKind[] = ["drawing", "second"];

/** A part of the canvas with an eye of its own. */
export class View {
  readonly camera = new StageCamera();
  readonly navigation: Navigation;
  /** See no farther than so much beyond the target; null for no limit. */
  beyondM: number | null = null;
  /** Whether the next frame draws it anew. */
  dirty = true;
  /** Whether it is drawn without edges until it rests. */
  sketching = false;
  private lastMove = 0;
  private placeTimer = 0;

  constructor(
    readonly kind: ViewKind,
    readonly element: HTMLElement,
    pose: Pose,
    private readonly host: ViewHost,
  ) {
    this.navigation = new Navigation(pose, {
      size: () => host.place(),
      turns: kind === "stage",
      toolDrag: (at) => host.toolDrag(at),
      pointAt: (at) => this.hitAt(at)?.point ?? null,
      rayAt: (at) => {
        const { origin, direction } = this.camera.ray(at);
        return { origin: origin.clone(), direction: direction.clone() };
      },
      fallbackPivot: () => this.middle(),
      pickedCentre: () => host.pickedCentre(),
      moved: () => this.moved(),
      pivotShown: (at) => host.pivotShown(at),
      clicked: (at, add) => host.clicked(this.hitAt(at), add, at),
      asked: (at) => host.asked(this.hitAt(at), this.toPixel(at)),
      entered: (at) => host.entered(this.hitAt(at)),
      hovered: (at) => {
        host.hovered(at && this.hitAt(at), at && this.toPixel(at));
      },
      stopped: () => host.stopped(),
      clear: (from, to) => host.clear(from, to),
      kept: (at) => host.kept(at),
      moverLeft: () => host.moverLeft(),
    });
    listen(element, () => host.place(), this.navigation);
  }

  /** Where the eye is and looks, to make another pose of. */
  get pose(): Pose {
    return { ...this.seen, throughM: 0 };
  }

  /** The pose as it is seen: with what is looked through. */
  get seen(): Pose {
    return copyPose(this.navigation.pose);
  }

  /** How large it is, in CSS pixels. */
  get size(): { width: number; height: number } {
    const { width, height } = this.host.place();
    return { width, height };
  }

  get aspect(): number {
    const { width, height } = this.host.place();
    return width / Math.max(1, height);
  }

  /** How wide a pixel is on the model: at 1 m from the eye, or anywhere in a parallel view. */
  get pixelM(): number {
    return this.camera.pixelM(this.navigation.pose, this.host.place().width);
  }

  /** Draw a part of a view that is so many times its height wide; null for all of it as it lies on the canvas. */
  part: (Part & { aspect: number }) | null = null;

  /** Put the camera where the pose is. */
  follow(): void {
    this.camera.part = this.part;
    this.camera.setAspect(this.part?.aspect ?? this.aspect);
    this.camera.place(this.navigation.pose, this.host.bounds(), this.beyondM, this.kind !== "stage");
  }

  /** The plane at which the view itself is cut open: it is opened, or a drawing whose eye is within it. */
  private get ownPlane(): ClipPlane | null {
    const { pose } = this.navigation;
    const opened = isOpened(pose);
    if (!opened && !(this.kind !== "stage" && this.camera.current.near === 0)) return null;
    const sight = forward(pose);
    const at = pose.eye.clone().addScaledVector(sight, opened ? pose.throughM : 0);
    return clipPlane(sight.negate(), at);
  }

  /** What cuts the view: the cuts of the building on the stage, and the plane at which it is opened. */
  get clips(): Clips {
    const base = this.kind === "stage" ? this.host.clips() : NO_CLIPS;
    const own = this.ownPlane;
    return own ? new Clips([...base.planes, own], base.whole) : base;
  }

  hitAt(at: Vector2): Hit | null {
    return this.host.first(this.camera.ray(at), this.clips);
  }

  /** What is at a place in CSS pixels from the view's top left. */
  hitAtPixel(x: number, y: number): Hit | null {
    return this.hitAt(this.fromPixel(x, y));
  }

  /** The ray through a place in CSS pixels from the view's top left. */
  rayAtPixel(x: number, y: number): Ray {
    return this.camera.ray(this.fromPixel(x, y)).clone();
  }

  /** A place from -1 to 1 in CSS pixels from the view's top left. */
  toPixel(at: Vector2): { x: number; y: number } {
    const { width, height } = this.host.place();
    return { x: ((at.x + 1) / 2) * width, y: ((1 - at.y) / 2) * height };
  }

  private fromPixel(x: number, y: number): Vector2 {
    const { width, height } = this.host.place();
    return new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2);
  }

  /** Where a point is in CSS pixels from the view's top left, and whether it lies before the eye. */
  pixelOf(point: Vector3): { x: number; y: number; before: boolean } {
    const { width, height } = this.host.place();
    const at = this.camera.project(point);
    const depth = point.clone().sub(this.navigation.pose.eye).dot(forward(this.navigation.pose));
    return {
      x: ((at.x + 1) / 2) * width,
      y: ((1 - at.y) / 2) * height,
      before: depth > 0 || this.navigation.pose.projection === "parallel",
    };
  }

  /** Whether a point falls within the view. */
  shows(point: Vector3): boolean {
    const { x, y, before } = this.pixelOf(point);
    const { width, height } = this.host.place();
    return before && x >= 0 && y >= 0 && x <= width && y <= height;
  }

  /** The direction in which a point is seen. */
  sightTo(point: Vector3): Vector3 {
    const { pose } = this.navigation;
    return pose.projection === "parallel" ? forward(pose) : point.clone().sub(pose.eye).normalize();
  }

  /** What is in the middle of the view, else of the building. */
  middle(): Vector3 {
    const hit = this.hitAt(new Vector2(0, 0));
    if (hit) return hit.point;
    const bounds = this.host.bounds();
    return bounds.isEmpty() ? this.navigation.pose.target.clone() : bounds.getCenter(new Vector3());
  }

  /** The components that a box means, between two corners from -1 to 1. */
  within(low: Vector2, high: Vector2, how: Boxing): number[] {
    const ray = (x: number, y: number) => this.camera.ray(new Vector2(x, y)).clone();
    const corners = [ray(low.x, low.y), ray(high.x, low.y), ray(high.x, high.y), ray(low.x, high.y)];
    const { pose } = this.navigation;
    const middle = ray((low.x + high.x) / 2, (low.y + high.y) / 2);
    // What is behind the eye is not seen.
    const front = clipPlane(forward(pose).negate(), middle.origin);
    return this.host.boxed([...sidesOf(corners, middle), front], how, this.clips);
  }

  /** The rectangle between two places of the canvas, in CSS pixels from the view's top left. */
  rectangle(from: Vector2, to: Vector2): Rectangle {
    const { width, height } = this.host.place();
    return {
      x: ((Math.min(from.x, to.x) + 1) / 2) * width,
      y: ((1 - Math.max(from.y, to.y)) / 2) * height,
      width: (Math.abs(to.x - from.x) / 2) * width,
      height: (Math.abs(to.y - from.y) / 2) * height,
    };
  }

  /** Move on in the next frame; until then the view does not count as resting. */
  wake(): void {
    this.lastMove = performance.now();
    this.element.dataset.rest = "no";
    this.forgetPlace();
    this.host.ask();
  }

  private moved(): void {
    this.follow();
    this.wake();
  }

  /** After a frame: go on moving, or come to rest. */
  settle(): void {
    if (this.navigation.busy) this.host.ask();
    else if (performance.now() - this.lastMove < STILL_MS) window.setTimeout(() => this.rest(), STILL_MS);
    else this.rest();
  }

  private rest(): void {
    if (this.navigation.busy || this.navigation.dragging || !this.host.begun()) return;
    if (this.sketching) {
      this.host.ask();
      return;
    }
    if (this.element.dataset.rest !== "yes") this.navigation.askHovered();
    this.element.dataset.rest = "yes";
    if (!this.placeTimer && this.host.complete())
      this.placeTimer = window.setTimeout(() => this.host.rested(this.seen, this.navigation.cause), PLACE_MS);
  }

  private forgetPlace(): void {
    window.clearTimeout(this.placeTimer);
    this.placeTimer = 0;
  }

  dispose(): void {
    this.forgetPlace();
  }
}
