import { Box3, Color, Ray, Scene, type Vector2, Vector3, WebGLRenderer } from "three";
import type { Federation } from "../api/client";
import { Chunks, LINES_LAYER } from "./chunks";
import { fineReach, sharedUniforms } from "./materials";
import type { Navigation } from "./navigation";
import type { Cause, Habits } from "./navigationHost";
import { type Hit, Picking } from "./picking";
import { PivotMark } from "./pivotMark";
import { forward, type Pose, turned } from "./pose";
import { RouteLine } from "./routeLine";
import { snapTo } from "./snapping";
import { snapshot } from "./snapshot";
import type { StageEvents } from "./stageEvents";
import { colourTexture, type State, StateTable } from "./states";
import { type Rectangle, View, type ViewKind } from "./view";
import { Figure } from "./walk/figure";
import type { Mover } from "./walk/mover";

const PIVOT_SIZE = 0.022;
/** A frame that takes longer makes gliding a nuisance. */
const SLOW_FRAME_MS = 80;
/** As long as a chunk's tree takes to build, or so. */
const TREE_MS = 8;
const BACK_OFF_M = 2.5;
/** Farther than one can have backed off. */
const BACK_IN_M = 100;
/** How much the lines of what is looked through pale. */
const PALE = 0.6;

declare global {
  interface Window {
    /** The stage of this page, for the benches and for whoever looks for a fault. */
    stairpathStage?: Stage;
  }
}

const NOWHERE: Rectangle = { x: 0, y: 0, width: 1, height: 1 };
const FIRST_POSE: Pose = {
  eye: new Vector3(0, -80, 40),
  target: new Vector3(0, 0, 5),
  up: new Vector3(0, 0, 1),
  projection: "perspective",
  angleDeg: 30,
  heightM: 40,
  throughM: 0,
};

/**
 * The 3D view, and the drawing beside it if there is one: two views of one scene on one canvas.
 * Draws only what changed.
 */
export class Stage {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly shared = sharedUniforms();
  private readonly states = new StateTable();
  private readonly chunks: Chunks;
  private readonly picking: Picking;
  private readonly pivot = new PivotMark();
  readonly figure = new Figure();
  private readonly route = new RouteLine();
  /** The stage's own view. */
  readonly main: View;
  /** The drawing beside it, or null. */
  drawing: View | null = null;
  /** Where the views lie on the canvas, since it was measured last. */
  private readonly places: Record<ViewKind, Rectangle> = { stage: { ...NOWHERE }, drawing: { ...NOWHERE } };
  private bounds = new Box3();
  private frameAsked = 0;
  private posed = false;
  /** What the next click does instead of picking. */
  private clickTool: "pin" | "point" | "corner" | null = null;
  /** Where the building's grid crosses on plan, for snapping. */
  crossings: readonly Vector2[] = [];
  /** The way the face looks that was clicked last. */
  pickedNormal: Vector3 | null = null;
  private pickedCentre: Vector3 | null = null;
  private frameMs = 0;
  /** So many of the next frames are timed, as long as they are slow. */
  private toTime = 0;
  /** How many chunks had arrived when the frame was timed last. */
  private timedAt = 0;
  private edgesShown = true;
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
      // A place on the Trail has its picture, and a view keeps what it shows, without another frame.
      preserveDrawingBuffer: true,
    });
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    this.renderer.setScissorTest(true);
    this.scene.matrixAutoUpdate = false;
    this.chunks = new Chunks(
      this.shared,
      () => this.navigation.pose.eye,
      () => this.chunksChanged(),
    );
    this.scene.add(this.chunks.root, this.pivot.sprite, this.figure.group, this.route.group);
    this.picking = new Picking(this.chunks, (component) => this.states.isSolid(component));
    this.main = this.view("stage", canvas, FIRST_POSE);
    this.sizes = new ResizeObserver(() => this.resize());
    this.sizes.observe(canvas);
    this.resize();
    window.stairpathStage = this;
  }

  private view(kind: ViewKind, element: HTMLElement, pose: Pose): View {
    const view: View = new View(kind, element, pose, {
      place: () => this.places[kind],
      first: (ray) => this.picking.first(ray),
      bounds: () => this.bounds,
      pickedCentre: () => this.pickedCentre,
      ask: () => this.ask(view),
      clicked: (hit, add) => this.clicked(view, hit, add),
      hovered: (component, at) => {
        if (this.states.setHovered(component)) this.ask();
        this.events.hover(component, at, kind);
      },
      pivotShown: (at) => {
        if (kind === "drawing") return;
        this.pivot.show(at, PIVOT_SIZE);
        this.ask(view);
      },
      stopped: () => this.events.stopped(),
      clear: (from, to) => this.clear(from, to),
      kept: (at) => this.events.kept(at),
      moverLeft: () => this.events.moverLeft(),
      region: (box) => this.events.region(box, kind),
      complete: () => this.posed && this.chunks.pending === 0,
      rested: (pose, cause) => this.events.rested(pose, cause, kind),
    });
    return view;
  }

  private get views(): readonly View[] {
    return this.drawing ? [this.main, this.drawing] : [this.main];
  }

  private clicked(view: View, hit: Hit | null, add: boolean): void {
    if (this.clickTool === "pin") {
      if (hit) this.pinTo(view, hit);
      return;
    }
    if (this.clickTool === "point") {
      if (hit) this.events.pointed(hit.point);
      return;
    }
    if (this.clickTool === "corner") {
      if (hit) this.events.pointed(this.snapped(view, hit).point);
      return;
    }
    this.pickedNormal = hit?.normal ?? null;
    this.events.pick(hit?.component ?? -1, add, view.kind);
  }

  get navigation(): Navigation {
    return this.main.navigation;
  }

  get aspect(): number {
    return this.main.aspect;
  }

  /** Show a drawing beside the stage where an element is; the stage takes what is left of it. */
  openDrawing(element: HTMLElement, pose: Pose): View {
    this.closeDrawing();
    this.drawing = this.view("drawing", element, pose);
    this.drawing.navigation.habits = this.navigation.habits;
    this.drawing.navigation.drawsRegions = this.navigation.drawsRegions;
    this.sizes.observe(element);
    this.resize();
    return this.drawing;
  }

  /** How moving feels, in every view. */
  setHabits(habits: Habits): void {
    for (const view of this.views) view.navigation.habits = habits;
  }

  /** What the left button does instead of picking and turning: draw regions, pin the pivot, point at a place. */
  setTool(tool: "region" | "pin" | "point" | "corner" | null): void {
    for (const view of this.views) view.navigation.drawsRegions = tool === "region";
    this.clickTool = tool === "region" ? null : tool;
  }

  /** Let the drawing go somewhere; what it shows glides there, as on the stage. */
  goDrawing(pose: Pose, atOnce = false): void {
    this.drawing?.navigation.go(pose, atOnce || this.slow);
  }

  closeDrawing(): void {
    if (!this.drawing) return;
    this.sizes.unobserve(this.drawing.element);
    this.drawing.dispose();
    this.drawing = null;
    this.resize();
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
    this.shared.paper.value.set(colour);
    this.ask();
  }

  setVisible(states: readonly State[]): void {
    this.states.setVisible(states);
    this.chunks.setFading(this.states.anyFaded);
    this.ask();
  }

  setPicked(components: readonly number[]): void {
    this.states.setPicked(components);
    const box = new Box3();
    for (const each of this.boxesOf(components).values()) box.union(each);
    this.pickedCentre = box.isEmpty() ? null : box.getCenter(new Vector3());
    this.ask();
  }

  setEdges(shown: boolean): void {
    this.edgesShown = shown;
    this.ask();
  }

  /** Let the eye be moved by keys, or again by drags about points. */
  setMover(by: Mover | null, cause: "walked" | "flew" = "walked", arriving = false): void {
    this.navigation.setMover(by, cause, arriving);
    if (!by) this.figure.show(null);
    this.ask();
  }

  /** Mark a component as if the cursor were on it. */
  mark(component: number): void {
    if (this.states.setHovered(component)) this.ask();
  }

  /** How far it is from one point to another before something that is shown is met, up to there. */
  clear(from: Vector3, to: Vector3): number {
    const way = to.clone().sub(from);
    const length = way.length();
    if (length < 1e-9) return 0;
    const hit = this.picking.first(new Ray(from.clone(), way.divideScalar(length)));
    return hit ? Math.min(length, hit.point.distanceTo(from)) : length;
  }

  /** Whether a route is drawn. */
  get routeShown(): boolean {
    return this.route.group.children.length > 0;
  }

  /** Draw a route over the floor, with dots where it is tight; null for none. */
  setRoute(route: { points: readonly Vector3[]; tight: readonly Vector3[] } | null): void {
    if (route) this.route.show(route.points, route.tight);
    else this.route.clear();
    this.ask();
  }

  /** Wait for the frame's pixels, and note how long it took; the first after something came also uploads. */
  private timeFrame(begun: number): void {
    const gl = this.renderer.getContext();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
    this.frameMs = performance.now() - begun;
    this.toTime = this.slow ? this.toTime - 1 : 0;
  }

  /** Go to a pose; the first one after opening is taken at once. A locked view stays. */
  go(pose: Pose, atOnce = false): void {
    if (this.navigation.locked && this.posed) {
      this.events.refused();
      return;
    }
    this.navigation.go(pose, atOnce || !this.posed || this.slow);
    this.posed = true;
  }

  /** Take a pose at once, in the middle of a drag somewhere else on the page. A locked view stays. */
  take(pose: Pose, cause: Cause = "went"): void {
    if (this.navigation.locked) this.events.refused();
    else this.navigation.set(pose, cause);
  }

  /** Back off through the wall behind, and look into the room through it. */
  lookThrough(): void {
    this.goBehind(-BACK_OFF_M);
  }

  /** Be in the room again that is looked into through its wall. */
  backInside(): void {
    this.goBehind(BACK_IN_M);
  }

  private goBehind(wayM: number): void {
    const seen = this.seen;
    const { way, throughM } = this.navigation.inside.behind(forward(seen), wayM, seen.throughM);
    seen.eye.add(way);
    seen.target.add(way);
    this.go({ ...seen, throughM });
  }

  /** As far towards a pose as the room allows that the eye is in. */
  keptInside(pose: Pose): Pose {
    return this.navigation.keptInside(pose);
  }

  /** Look along a direction at once, turned about a point, or about the pivot. */
  turnTo(bearingDeg: number, tiltDeg: number, about: Vector3 = this.navigation.pivot): void {
    this.take(turned(this.seen, about, bearingDeg, tiltDeg), "turned");
  }

  /** See no farther than so much beyond the target; null for no limit. */
  setDepthLimit(beyondM: number | null): void {
    this.main.beyondM = beyondM;
    this.ask(this.main);
  }

  /** The exact point that is meant by a click. */
  private snapped(view: View, hit: Hit) {
    return snapTo(hit, this.chunks, this.crossings, (p) => view.camera.project(p), this.places[view.kind]);
  }

  private pinTo(view: View, hit: Hit): void {
    const snap = this.snapped(view, hit);
    this.navigation.pin(snap.point);
    this.events.pinned(snap.kind);
  }

  /** Where the view turns about if nothing is under the cursor. */
  get pivotPoint(): Vector3 {
    return this.navigation.pivot.clone();
  }

  /** Where the eye is and looks, to make another pose of. */
  get pose(): Pose {
    return this.main.pose;
  }

  /** The pose as it is seen: with what is looked through. */
  get seen(): Pose {
    return this.main.seen;
  }

  /** The present picture of the stage as PNG, at most `width` wide. */
  picture(width: number): string {
    this.pivot.show(this.navigation.pinnedAt, PIVOT_SIZE);
    this.main.sketching = false;
    this.draw();
    return this.snapshot(width, "image/png");
  }

  /** The frame of a view that was drawn last, small. */
  snapshot(width: number, type: "image/png" | "image/jpeg", view = this.main): string {
    return snapshot(
      this.renderer.domElement,
      this.renderer.getPixelRatio(),
      this.places[view.kind],
      width,
      type,
    );
  }

  /** The component at a place of the stage in CSS pixels from its top left, or null. */
  componentAt(x: number, y: number): Hit | null {
    return this.main.hitAtPixel(x, y);
  }

  /** The box around each component; those that are not drawn have none. */
  boxesOf(components: readonly number[]): ReadonlyMap<number, Box3> {
    return this.chunks.boxesOf(new Set(components));
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
    for (const view of this.views) view.dispose();
    this.sizes.disconnect();
    this.chunks.dispose();
    this.figure.dispose();
    this.route.dispose();
    this.renderer.dispose();
    if (window.stairpathStage === this) delete window.stairpathStage;
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.canvas;
    if (!clientWidth || !clientHeight) return;
    this.renderer.setSize(clientWidth, clientHeight, false);
    this.places.stage = { x: 0, y: 0, width: clientWidth, height: clientHeight };
    if (this.drawing) {
      // The stage has what is left of the drawing.
      const canvas = this.canvas.getBoundingClientRect();
      const { left, top, width, height } = this.drawing.element.getBoundingClientRect();
      this.places.drawing = { x: left - canvas.left, y: top - canvas.top, width: Math.max(1, width), height };
      this.places.stage.width = Math.max(1, left - canvas.left);
    }
    for (const view of this.views) view.follow();
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
      this.toTime = 2;
    }
    this.buildTrees();
  }

  private buildTrees(): void {
    const quiet = window.requestIdleCallback ?? ((run: () => void) => window.setTimeout(run, 16));
    const step = (spare?: IdleDeadline) => {
      let more = this.picking.buildOne();
      while (more && spare && spare.timeRemaining() > TREE_MS) more = this.picking.buildOne();
      if (more) quiet(step);
      else this.canvas.dataset.pickable = "yes";
    };
    quiet(step);
  }

  /** Draw a view, or all of them, in the next frame. */
  ask(view?: View): void {
    for (const each of view ? [view] : this.views) each.dirty = true;
    if (!this.frameAsked) this.frameAsked = requestAnimationFrame((now) => this.frame(now));
  }

  private get slow(): boolean {
    return this.frameMs > SLOW_FRAME_MS;
  }

  private frame(now: number): void {
    this.frameAsked = 0;
    const drawn = this.views.filter((view) => view.dirty);
    for (const view of drawn) {
      view.dirty = false;
      const { navigation } = view;
      navigation.tick(now);
      if (this.slow) navigation.arrive();
      // Where drawing is slow, edges wait until the eye rests.
      view.sketching = this.slow && (navigation.busy || navigation.dragging);
      const begun = performance.now();
      this.draw(view);
      if (this.toTime > 0) this.timeFrame(begun);
      this.events.moved(navigation.pose, view.kind);
    }
    for (const view of drawn) view.settle();
  }

  /** Put the stage's camera where its pose is, as the next frame would. */
  follow(): void {
    this.main.follow();
  }

  /** Draw a view at once, as the next frame would. */
  draw(view = this.main): void {
    this.frames++;
    view.follow();
    const { pose } = view.navigation;
    const { x, y, width, height } = this.places[view.kind];
    const fromBelow = this.canvas.clientHeight - y - height;
    this.renderer.setViewport(x, fromBelow, width, height);
    this.renderer.setScissor(x, fromBelow, width, height);
    this.shared.pixel.value = view.pixelM;
    this.shared.cut.value = view.cuts ? 1 : 0;
    this.chunks.setEdges(this.edgesShown && !view.sketching);
    this.chunks.setFineReach(pose.eye, fineReach(view.pixelM, pose.projection === "parallel"));
    const pivotShown = this.pivot.sprite.visible;
    this.pivot.sprite.visible = pivotShown && view === this.main;
    this.renderer.render(this.scene, view.camera.current);
    if (pose.throughM > 0) this.drawLookedThrough(view);
    this.pivot.sprite.visible = pivotShown;
  }

  /** What stands before the room that is looked into, as pale lines over it. */
  private drawLookedThrough(view: View): void {
    const camera = view.camera.current;
    view.camera.lookAtNear();
    camera.layers.set(LINES_LAYER);
    this.shared.pale.value = PALE;
    this.renderer.autoClear = false;
    this.renderer.clearDepth();
    this.renderer.render(this.scene, camera);
    this.renderer.autoClear = true;
    this.shared.pale.value = 0;
    camera.layers.set(0);
    view.follow();
  }
}
