import { Box3, Color, Scene, Vector2, Vector3, WebGLRenderer } from "three";
import type { Federation } from "../api/client";
import { StageCamera } from "./camera";
import { Chunks } from "./chunks";
import { fineReach, sharedUniforms } from "./materials";
import { type Cause, Navigation } from "./navigation";
import { type Hit, Picking } from "./picking";
import { PivotMark } from "./pivotMark";
import { copyPose, forward, type Pose, turned } from "./pose";
import { regionPose } from "./regions";
import { type SnapKind, snapTo } from "./snapping";
import { colourTexture, type State, StateTable } from "./states";

const PIVOT_SIZE = 0.022;
const STILL_MS = 120;
/** After so long at rest a place counts as one. */
const PLACE_MS = 600;
/** A frame that takes longer makes gliding a nuisance. */
const SLOW_FRAME_MS = 80;

/** What the stage tells those who listen. */
export interface StageEvents {
  hover(component: number, at: { x: number; y: number } | null): void;
  pick(component: number, add: boolean): void;
  /** The eye moved; called at most once a frame. */
  moved(pose: Pose): void;
  /** Chunks still to come, of how many. */
  streaming(pending: number, total: number, failed: readonly string[]): void;
  stopped(): void;
  /** The view is locked and was to go somewhere. */
  refused(): void;
  /** A region is being drawn, in CSS pixels of the canvas; null once it is done. */
  region(box: { x: number; y: number; width: number; height: number } | null): void;
  /** The pivot was pinned to a point. */
  pinned(kind: SnapKind): void;
  /** The eye has been at rest for a while after it moved. */
  rested(pose: Pose, cause: Cause): void;
}

declare global {
  interface Window {
    /** The stage of this page, for the benches and for whoever looks for a fault. */
    stairpathStage?: Stage;
  }
}

/** The 3D view. Draws only when something changed. */
export class Stage {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new StageCamera();
  private readonly shared = sharedUniforms();
  private readonly states = new StateTable();
  private readonly chunks: Chunks;
  private readonly picking: Picking;
  private readonly pivot = new PivotMark();
  readonly navigation: Navigation;
  private bounds = new Box3();
  private frameAsked = 0;
  private posed = false;
  private lastMove = 0;
  /** Whether the next click pins the pivot. */
  pinning = false;
  /** Where the building's grid crosses on plan, for snapping. */
  crossings: readonly Vector2[] = [];
  private beyondM: number | null = null;
  /** The way the face looks that was clicked last. */
  pickedNormal: Vector3 | null = null;
  private pickedCentre: Vector3 | null = null;
  private placeTimer = 0;
  private frameMs = 0;
  /** How many chunks had arrived when the frame was timed last. */
  private timedAt = 0;
  private edgesShown = true;
  private sketching = false;
  private readonly sizes: ResizeObserver;
  frames = 0;

  constructor(
    readonly canvas: HTMLCanvasElement,
    private readonly events: StageEvents,
  ) {
    this.renderer = new WebGLRenderer({
      canvas,
      antialias: true,
      powerPreference: "high-performance",
      preserveDrawingBuffer: true, // so that a place on the Trail has its picture without another frame
    });
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    this.scene.matrixAutoUpdate = false;
    this.chunks = new Chunks(
      this.shared,
      () => this.navigation.pose.eye,
      () => this.chunksChanged(),
    );
    this.scene.add(this.chunks.root, this.pivot.sprite);
    this.picking = new Picking(this.chunks, (component) => this.states.isSolid(component));
    this.navigation = new Navigation(
      {
        eye: new Vector3(0, -80, 40),
        target: new Vector3(0, 0, 5),
        up: new Vector3(0, 0, 1),
        projection: "perspective",
        angleDeg: 30,
        heightM: 40,
      },
      {
        canvas,
        pointAt: (at) => this.hitAt(at)?.point ?? null,
        rayAt: (at) => {
          const { origin, direction } = this.camera.ray(at);
          return { origin: origin.clone(), direction: direction.clone() };
        },
        fallbackPivot: () => this.fallbackPivot(),
        pickedCentre: () => this.pickedCentre,
        moved: () => this.moved(),
        pivotShown: (at) => {
          this.pivot.show(at, PIVOT_SIZE);
          this.ask();
        },
        clicked: (at, add) => {
          const hit = this.hitAt(at);
          if (this.pinning) {
            if (hit) this.pinTo(hit);
            return;
          }
          this.pickedNormal = hit?.normal ?? null;
          this.events.pick(hit?.component ?? -1, add);
        },
        hovered: (at) => this.hover(at),
        stopped: () => this.events.stopped(),
        region: (from, to, done) => {
          this.events.region(done ? null : this.pixels(from, to));
          if (done) this.zoomToRegion(from, to);
        },
      },
    );
    this.sizes = new ResizeObserver(() => this.resize());
    this.sizes.observe(canvas);
    this.resize();
    window.stairpathStage = this;
  }

  get aspect(): number {
    return this.canvas.clientWidth / Math.max(1, this.canvas.clientHeight);
  }

  /** Draw a federation; what is drawn already stays. */
  setFederation(federation: Federation): void {
    const perComponent = federation.models.flatMap((m) => m.colour);
    this.states.resize(perComponent.length);
    this.shared.states.value = this.states.texture;
    this.shared.colours.value?.dispose();
    this.shared.colours.value = colourTexture(federation.colours, perComponent);
    const origin = new Vector3().fromArray(federation.origin_m);
    this.bounds = new Box3();
    for (const corner of federation.bounds_m ?? []) {
      this.bounds.expandByPoint(new Vector3().fromArray(corner).sub(origin));
    }
    this.chunks.setModels(federation.models);
    this.ask();
  }

  setBackground(colour: string): void {
    this.renderer.setClearColor(new Color(colour));
    this.ask();
  }

  setVisible(states: readonly State[]): void {
    this.states.setVisible(states);
    this.chunks.setFading(this.states.anyFaded);
    this.ask();
  }

  setPicked(components: readonly number[]): void {
    this.states.setPicked(components);
    const box = this.chunks.boundsOf(new Set(components));
    this.pickedCentre = box.isEmpty() ? null : box.getCenter(new Vector3());
    this.ask();
  }

  setEdges(shown: boolean): void {
    this.edgesShown = shown;
    this.chunks.setEdges(shown);
    this.ask();
  }

  /** Where drawing is slow, edges wait until the eye rests. */
  private sketch(on: boolean): void {
    if (on === this.sketching) return;
    this.sketching = on;
    this.chunks.setEdges(this.edgesShown && !on);
    this.placeCamera();
  }

  /** How long a frame takes until its pixels are there. */
  private timeFrame(): number {
    const gl = this.renderer.getContext();
    let took = 0;
    // The first frame also compiles and uploads, so the second counts.
    for (let i = 0; i < 2; i++) {
      const begun = performance.now();
      this.draw();
      gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
      took = performance.now() - begun;
    }
    return took;
  }

  /** Go to a pose; the first one after opening is taken at once. A locked view stays. */
  go(pose: Pose, atOnce = false): void {
    if (this.navigation.locked && this.posed) {
      this.events.refused();
      return;
    }
    this.navigation.go(pose, atOnce || !this.posed || this.frameMs > SLOW_FRAME_MS);
    this.posed = true;
  }

  /** Look along a direction at once, turned about a point, or about the pivot. */
  turnTo(bearingDeg: number, tiltDeg: number, about: Vector3 = this.navigation.pivot): void {
    this.navigation.set(turned(this.pose, about, bearingDeg, tiltDeg), "turned");
  }

  /** See no farther than so much beyond the target; null for no limit. */
  setDepthLimit(beyondM: number | null): void {
    this.beyondM = beyondM;
    this.placeCamera();
    this.ask();
  }

  private pinTo(hit: Hit): void {
    const { clientWidth: width, clientHeight: height } = this.canvas;
    const snap = snapTo(hit, this.chunks, this.crossings, (p) => this.camera.project(p), { width, height });
    this.navigation.pin(snap.point);
    this.events.pinned(snap.kind);
  }

  private pixels(from: Vector2, to: Vector2) {
    const { clientWidth, clientHeight } = this.canvas;
    return {
      x: ((Math.min(from.x, to.x) + 1) / 2) * clientWidth,
      y: ((1 - Math.max(from.y, to.y)) / 2) * clientHeight,
      width: (Math.abs(to.x - from.x) / 2) * clientWidth,
      height: (Math.abs(to.y - from.y) / 2) * clientHeight,
    };
  }

  /** Frame what is seen in a region at its own depth, keeping the direction. */
  zoomToRegion(from: Vector2, to: Vector2): void {
    const reach = this.pivotPoint.sub(this.pose.eye).dot(forward(this.pose));
    const next = regionPose(this.pose, from, to, {
      rayAt: (at) => this.camera.ray(at),
      pointAt: (at) => this.hitAt(at)?.point ?? null,
      reachM: reach,
    });
    if (next) this.go(next);
  }

  /** Where the view turns about if nothing is under the cursor. */
  get pivotPoint(): Vector3 {
    return this.navigation.pivot.clone();
  }

  get pose(): Pose {
    return copyPose(this.navigation.pose);
  }

  /** The present picture as PNG, at most `width` wide. */
  picture(width: number): string {
    this.pivot.show(this.navigation.pinnedAt, PIVOT_SIZE);
    this.sketch(false);
    this.draw();
    return this.snapshot(width, "image/png");
  }

  /** The frame that was drawn last, small. */
  snapshot(width: number, type: "image/png" | "image/jpeg"): string {
    const source = this.renderer.domElement;
    const small = document.createElement("canvas");
    small.width = Math.min(width, source.width);
    small.height = Math.round((source.height / source.width) * small.width);
    const pen = small.getContext("2d");
    if (pen) {
      pen.imageSmoothingQuality = "high";
      pen.drawImage(source, 0, 0, small.width, small.height);
    }
    return small.toDataURL(type, 0.7);
  }

  /** The component at a place of the canvas in CSS pixels from its top left, or null. */
  componentAt(x: number, y: number): Hit | null {
    const box = this.canvas.getBoundingClientRect();
    return this.hitAt(new Vector2((x / box.width) * 2 - 1, 1 - (y / box.height) * 2));
  }

  /** Whether a component is shown or faded now. */
  isDrawn(component: number): boolean {
    return this.states.isVisible(component);
  }

  /** What the renderer did in the last frame. */
  get drawInfo() {
    return { ...this.renderer.info.render, geometries: this.renderer.info.memory.geometries };
  }

  dispose(): void {
    cancelAnimationFrame(this.frameAsked);
    window.clearTimeout(this.placeTimer);
    this.sizes.disconnect();
    this.chunks.setModels([]);
    this.renderer.dispose();
    if (window.stairpathStage === this) delete window.stairpathStage;
  }

  private hitAt(at: Vector2): Hit | null {
    return this.picking.first(this.camera.ray(at));
  }

  private fallbackPivot(): Vector3 {
    const middle = this.hitAt(new Vector2(0, 0));
    if (middle) return middle.point;
    return this.bounds.isEmpty() ? this.navigation.pose.target.clone() : this.bounds.getCenter(new Vector3());
  }

  private hover(at: Vector2 | null): void {
    const component = at ? (this.hitAt(at)?.component ?? -1) : -1;
    if (this.states.setHovered(component)) this.ask();
    const box = this.canvas.getBoundingClientRect();
    this.events.hover(
      component,
      at ? { x: ((at.x + 1) / 2) * box.width, y: ((1 - at.y) / 2) * box.height } : null,
    );
  }

  private moved(): void {
    this.lastMove = performance.now();
    this.canvas.dataset.rest = "no";
    window.clearTimeout(this.placeTimer);
    this.placeTimer = 0;
    this.placeCamera();
    this.ask();
  }

  private placeCamera(): void {
    this.camera.setAspect(this.aspect);
    const pose = this.navigation.pose;
    this.camera.place(pose, this.bounds, this.beyondM);
    const pixel = this.camera.pixelM(pose, this.canvas.clientWidth);
    this.shared.pixel.value = pixel;
    this.chunks.setFineReach(pose.eye, fineReach(pixel, pose.projection === "parallel"));
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.canvas;
    if (!clientWidth || !clientHeight) return;
    this.renderer.setSize(clientWidth, clientHeight, false);
    this.placeCamera();
    this.ask();
  }

  private chunksChanged(): void {
    const { pending, total, failed } = this.chunks;
    this.events.streaming(pending, total, failed);
    this.chunks.setFading(this.states.anyFaded);
    this.ask();
    if (pending > 0) return;
    // A federation that brings nothing new to draw is drawn as fast as before.
    if (this.chunks.arrived !== this.timedAt) {
      this.timedAt = this.chunks.arrived;
      this.frameMs = this.timeFrame();
    }
    this.buildTrees();
  }

  private buildTrees(): void {
    const quiet = window.requestIdleCallback ?? ((run: () => void) => window.setTimeout(run, 16));
    const step = () => {
      if (this.picking.buildOne()) quiet(step);
      else this.canvas.dataset.pickable = "yes";
    };
    quiet(step);
  }

  /** Draw in the next frame. */
  ask(): void {
    if (!this.frameAsked) this.frameAsked = requestAnimationFrame((now) => this.frame(now));
  }

  private frame(now: number): void {
    this.frameAsked = 0;
    this.navigation.tick(now);
    if (this.frameMs > SLOW_FRAME_MS) this.navigation.arrive();
    this.placeCamera();
    this.sketch(this.frameMs > SLOW_FRAME_MS && (this.navigation.busy || this.navigation.dragging));
    this.draw();
    this.events.moved(this.navigation.pose);
    if (this.navigation.busy) this.ask();
    else if (performance.now() - this.lastMove < STILL_MS) window.setTimeout(() => this.rest(), STILL_MS);
    else this.rest();
  }

  private rest(): void {
    if (this.navigation.busy || this.navigation.dragging) return;
    if (this.sketching) {
      this.ask();
      return;
    }
    this.canvas.dataset.rest = "yes";
    if (!this.placeTimer && this.posed && this.chunks.pending === 0)
      this.placeTimer = window.setTimeout(
        () => this.events.rested(this.pose, this.navigation.cause),
        PLACE_MS,
      );
  }

  /** Put the camera where the pose is, as the next frame would. */
  follow(): void {
    this.placeCamera();
  }

  /** Draw at once, as the next frame would. */
  draw(): void {
    this.frames++;
    this.renderer.render(this.scene, this.camera.current);
  }
}
