import { type Vector2, Vector3 } from "three";
import { Aiming } from "./aiming";
import { Building } from "./building";
import { Finishing, type InFull } from "./finishing";
import { Frames } from "./frames";
import type { Hit } from "./geometry/picking";
import type { Gesture } from "./gesture";
import type { Cause, Habits } from "./gestures/host";
import type { Behind } from "./gestures/inside";
import type { Navigation } from "./gestures/navigation";
import { CutFaces } from "./layers/cutFaces";
import type { DrawingStyle, Layer, LayerKind } from "./layers/layer";
import { ink } from "./layers/materials";
import { PointMarks } from "./layers/pointMarks";
import type { Mover } from "./movers/mover";
import { penOn } from "./pen";
import { Pictures } from "./pictures";
import { closed, forward, type Pose, turned } from "./pose";
import { Renderer } from "./renderer";
import type { StageEvents } from "./stageEvents";
import { offerToTests } from "./testHooks";
import type { Tool } from "./tools/tool";
import { type DrawingKind, type Rectangle, View, type ViewKind } from "./view";

const BACK_OFF_M = 2.5;
/** Farther than one can have backed off. */
const BACK_IN_M = 100;

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
 * The 3D view, and the drawing beside it if there is one: two views of the same layers on one canvas.
 * Draws only what changed.
 */
export class Stage {
  readonly building: Building;
  readonly marks = new PointMarks(() => this.ask());
  readonly cutFaces: CutFaces;
  /** What features draw over the building; they are asked for clicks and drags in this order. */
  private readonly layers: Layer[] = [];
  readonly aiming: Aiming;
  readonly pictures: Pictures;
  private readonly renderer: Renderer;
  private readonly frameLoop: Frames;
  private readonly finishing = new Finishing(() => this.ask(this.main));
  /** The stage's own view. */
  readonly main: View;
  /** The drawings beside it that are open. */
  readonly drawings: Partial<Record<DrawingKind, View>> = {};
  /** Where the views lie on the canvas, since it was measured last. */
  private readonly places: Record<ViewKind, Rectangle> = {
    stage: { ...NOWHERE },
    drawing: { ...NOWHERE },
    second: { ...NOWHERE },
  };
  private posed = false;
  /** The way the face looks that was clicked last. */
  pickedNormal: Vector3 | null = null;
  private style: DrawingStyle = "edges";
  private readonly sizes: ResizeObserver;
  frames = 0;

  constructor(
    readonly canvas: HTMLCanvasElement,
    private readonly events: StageEvents,
  ) {
    this.building = new Building({
      eye: () => this.navigation.pose.eye,
      changed: () => this.ask(),
      streaming: (pending, total, failed) => events.streaming(pending, total, failed),
      complete: () => this.frameLoop.timeAgain(),
      pickable: () => {
        canvas.dataset.pickable = "yes";
      },
    });
    this.cutFaces = this.made(CutFaces);
    this.aiming = new Aiming(this.building, this.marks);
    this.renderer = new Renderer(
      canvas,
      this.building.shared,
      [this.building.chunks, this.cutFaces],
      () => this.building.bounds,
    );
    this.renderer.add(this.marks);
    this.frameLoop = new Frames({
      views: () => this.views,
      draw: (view) => this.draw(view),
      finish: () => this.renderer.finish(),
      moved: (view) => events.moved(view.navigation.pose, view.kind),
      samples: () => (this.begun ? this.samples : 0),
      sample: (view, number) => this.draw(view, false, number),
    });
    this.main = this.view("stage", canvas, FIRST_POSE);
    this.pictures = new Pictures({
      renderer: this.renderer,
      building: this.building,
      marks: this.marks,
      layers: this.layers,
      places: this.places,
      main: this.main,
      putBack: () => {
        this.resize();
        for (const view of this.views) this.draw(view);
      },
      draw: (view, inFull, sample) => this.draw(view, inFull, sample),
    });
    this.sizes = new ResizeObserver(() => this.resize());
    this.sizes.observe(canvas);
    this.resize();
    offerToTests("stage", this);
    offerToTests("layers", { cutFaces: this.cutFaces });
  }

  private made<L extends Layer>(kind: LayerKind<L>): L {
    return new kind(() => this.ask(), this.building.shared);
  }

  /** The layer of a kind over the building: added when somebody first asks for it. */
  layer<L extends Layer>(kind: LayerKind<L>): L {
    const known = this.layers.find((each) => each instanceof kind);
    if (known instanceof kind) return known;
    const layer = this.made(kind);
    this.layers.push(layer);
    this.renderer.add(layer);
    offerToTests(
      "layers",
      Object.fromEntries([this.cutFaces, ...this.layers].map((each) => [each.name, each])),
    );
    return layer;
  }

  private view(kind: ViewKind, element: HTMLElement, pose: Pose): View {
    const view: View = new View(kind, element, pose, {
      place: () => this.places[kind],
      first: (ray, clips) => this.building.first(ray, clips),
      clips: () => this.building.clips,
      boxed: (sides, how, clips) => this.building.boxed(sides, how, clips),
      bounds: () => this.building.bounds,
      pickedCentre: () => this.building.pickedCentre,
      ask: () => this.ask(view),
      toolDrag: (at) => (this.aiming.tool ? this.aiming.tool.down?.(view) : this.grip(view, at)) ?? null,
      clicked: (hit, add, at) => this.clicked(view, hit, add, at),
      // What is in hand has its own clicks.
      asked: (hit, at) => hit && !this.aiming.tool && this.events.asked(hit, at, kind),
      entered: (hit) => hit && !this.aiming.tool && this.events.entered(hit, kind),
      hovered: (hit, at) => this.hovered(view, hit, at),
      pivotShown: (at) => {
        if (kind === "stage") this.marks.showPivot(at, at !== null && at === this.navigation.pinnedAt);
      },
      stopped: () => this.events.stopped(),
      clear: (from, to) => this.building.clear(from, to),
      kept: (at) => this.events.kept(at),
      moverLeft: () => this.events.moverLeft(),
      begun: () => this.begun,
      complete: () => this.posed && this.building.chunks.pending === 0,
      rested: (seen, cause) => this.events.rested(seen, cause, kind),
    });
    return view;
  }

  private get views(): readonly View[] {
    return [this.main, ...Object.values(this.drawings)];
  }

  private grip(view: View, at: Vector2): Gesture | null {
    if (view !== this.main) return null;
    const { x, y } = view.toPixel(at);
    for (const layer of this.layers) {
      const gesture = layer.grip?.(x, y);
      if (gesture) return gesture;
    }
    return null;
  }

  private clicked(view: View, hit: Hit | null, add: boolean, at: Vector2): void {
    if (this.aiming.click(view, hit, at)) return;
    const { x, y } = view.toPixel(at);
    if (view === this.main && this.layers.some((layer) => layer.click?.(x, y))) return;
    this.pickedNormal = hit?.normal ?? null;
    this.events.pick(hit?.component ?? -1, add, view.kind);
  }

  private hovered(view: View, hit: Hit | null, at: { x: number; y: number } | null): void {
    const caught = this.aiming.hover(view, hit, view === this.main);
    this.events.hover(hit?.component ?? -1, at, view.kind, caught);
  }

  get navigation(): Navigation {
    return this.main.navigation;
  }

  get aspect(): number {
    return this.main.aspect;
  }

  /** Show a drawing beside the stage where an element is; the stage takes what is left of it. */
  openDrawing(kind: DrawingKind, element: HTMLElement, pose: Pose): View {
    this.closeDrawing(kind);
    const view = this.view(kind, element, pose);
    view.navigation.habits = this.navigation.habits;
    this.drawings[kind] = view;
    this.sizes.observe(element);
    this.resize();
    return view;
  }

  /** How moving feels, in every view. */
  setHabits(habits: Habits): void {
    for (const view of this.views) view.navigation.habits = habits;
  }

  /** Take a tool in hand, in every view; null to pick and turn again. */
  setTool(tool: Tool | null): void {
    this.aiming.tool = tool;
    this.marks.showSnap(null);
    for (const view of this.views) view.navigation.askHovered();
  }

  /** Let a drawing go somewhere; what it shows glides there, as on the stage. */
  goDrawing(kind: DrawingKind, pose: Pose, atOnce = false): void {
    this.drawings[kind]?.navigation.go(pose, atOnce || this.frameLoop.slow);
  }

  closeDrawing(kind: DrawingKind): void {
    const view = this.drawings[kind];
    if (!view) return;
    this.sizes.unobserve(view.element);
    view.dispose();
    delete this.drawings[kind];
    this.resize();
  }

  /** Everything lies so much further than before: it is counted from another origin. */
  rebase(by: Vector3): void {
    for (const view of this.views) view.navigation.rebase(by);
  }

  setBackground(colour: string): void {
    this.renderer.setBackground(colour);
    this.cutFaces.setPen(penOn(colour));
    this.ask();
  }

  /** When the stage is drawn in full: with shade in corners and lines where components meet. */
  setInFull(when: InFull): void {
    this.finishing.when = when;
    this.ask(this.main);
  }

  /** In which colours what is picked and what is under the cursor are drawn. */
  setHighlights(picked: string, hovered: string): void {
    const { pick, here } = this.building.shared;
    pick.value = ink(picked);
    here.value = ink(hovered);
    this.ask();
  }

  /** How many times as large as usual signs and letters are. */
  setLetters(share: number): void {
    this.renderer.letters = share;
    this.ask();
  }

  setStyle(style: DrawingStyle): void {
    this.style = style;
    this.ask();
  }

  /** Let the eye be moved by keys, or again by drags about points. */
  setMover(by: Mover | null, cause: "walked" | "flew" = "walked", arriving = false): void {
    this.navigation.setMover(by, cause, arriving);
    this.ask();
  }

  /** Go to a pose; the first one after opening is taken at once. A locked view stays. */
  go(pose: Pose, atOnce = false): void {
    if (this.navigation.locked && this.posed) {
      this.events.refused();
      return;
    }
    const first = !this.posed;
    this.posed = true;
    this.navigation.go(pose, atOnce || first || this.frameLoop.slow);
  }

  /** Whether the eye is where somebody wanted it, or there is nothing yet to be seen from elsewhere. */
  private get begun(): boolean {
    return this.posed || this.building.chunks.total === 0;
  }

  /** Begin where the eye is, when there is nowhere to go. */
  begin(): void {
    if (this.posed) return;
    this.posed = true;
    this.main.wake();
  }

  /** Whether frames take so long that gliding is a nuisance. */
  get slow(): boolean {
    return this.frameLoop.slow;
  }

  /** Take a pose at once, in the middle of a drag somewhere else on the page. A locked view stays. */
  take(pose: Pose, cause: Cause = "went"): void {
    if (this.navigation.locked) this.events.refused();
    else this.navigation.set(pose, cause);
  }

  /** Back off through the wall behind, and look into the room through it. */
  lookThrough(): void {
    const { eye, throughM } = this.seen;
    this.goBehind(this.navigation.inside.out(eye, forward(this.seen), throughM, BACK_OFF_M));
  }

  /** Be in the room again that is looked into through its wall. */
  backInside(): void {
    const { throughM } = this.seen;
    this.goBehind(this.navigation.inside.behind(forward(this.seen), BACK_IN_M, throughM));
  }

  private goBehind({ way, throughM }: Behind): void {
    const seen = this.seen;
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
    this.take(closed(turned(this.seen, about, bearingDeg, tiltDeg)), "turned");
  }

  /** See no farther than so much beyond the target; null for no limit. */
  setDepthLimit(beyondM: number | null): void {
    this.main.beyondM = beyondM;
    this.ask(this.main);
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

  /** The component at a place of the stage in CSS pixels from its top left, or null. */
  componentAt(x: number, y: number): Hit | null {
    return this.main.hitAtPixel(x, y);
  }

  /** What the renderer did in the last frame. */
  get drawInfo() {
    return this.renderer.info;
  }

  dispose(): void {
    this.frameLoop.dispose();
    this.finishing.dispose();
    for (const view of this.views) view.dispose();
    this.sizes.disconnect();
    this.building.dispose();
    this.renderer.dispose();
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.canvas;
    if (!clientWidth || !clientHeight) return;
    this.renderer.resize(clientWidth, clientHeight);
    this.places.stage = { x: 0, y: 0, width: clientWidth, height: clientHeight };
    const canvas = this.canvas.getBoundingClientRect();
    for (const view of Object.values(this.drawings)) {
      // The stage has what is left of the drawings.
      const { left, top, width, height } = view.element.getBoundingClientRect();
      this.places[view.kind] = {
        x: left - canvas.left,
        y: top - canvas.top,
        width: Math.max(1, width),
        height,
      };
      this.places.stage.width = Math.max(1, left - canvas.left);
    }
    for (const view of this.views) view.follow();
    this.ask();
  }

  /** Draw a view, or all of them, in the next frame; nothing from where nobody meant to look. */
  ask(view?: View): void {
    if (this.begun) this.frameLoop.ask(view);
    else {
      this.renderer.blank();
      this.canvas.dataset.rest = "no";
    }
  }

  /** Put the stage's camera where its pose is, as the next frame would. */
  follow(): void {
    this.main.follow();
  }

  /** Names what a view shows, whatever its colours. */
  private nameOf(view: View): string {
    const { pose } = view.navigation;
    const { width, height } = view.size;
    const { near, far } = view.camera.current;
    const eye = [
      ...pose.eye.toArray(),
      ...pose.target.toArray(),
      ...pose.up.toArray(),
      pose.angleDeg,
      pose.heightM,
    ];
    const part = view.part ? Object.values(view.part) : [];
    const rest = [
      ...part,
      pose.projection,
      width,
      height,
      near,
      far,
      this.building.shape,
      this.cutFaces.made,
    ];
    return [...eye, ...rest].join();
  }

  /** By how many samples a view at rest is drawn; who wants everything in kept pictures alone waits for none. */
  private get samples(): number {
    return this.finishing.when === "pictures" ? 1 : this.renderer.samples;
  }

  /**
   * Draw a view at once, as the next frame would, or in full whatever that takes, or as one sample of a smooth one; whether
   * it was in full.
   */
  draw(view = this.main, inFull = false, sample: number | null = null): boolean {
    this.frames++;
    view.follow();
    const name = this.nameOf(view);
    const wanted = view === this.main && (this.finishing.due(name, this.frameLoop.slow) || inFull);
    const full = wanted && this.style !== "clear" && !view.sketching;
    // A drawing beside the stage is one of lines on shade, however the stage is drawn.
    const style = view === this.main ? this.style : "edges";
    const place = this.places[view.kind];
    if (sample === null) this.renderer.draw(view, place, style, full ? name : null);
    else this.renderer.drawSample(view, place, style, full ? name : null, sample);
    if (view === this.main) {
      this.canvas.dataset.inFull = full ? "yes" : "no";
      this.canvas.dataset.smooth = (sample ?? 0) + 1 >= this.samples ? "yes" : "no";
    }
    return full;
  }
}
