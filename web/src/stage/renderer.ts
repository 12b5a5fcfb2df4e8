import { type Box3, Color, Scene, type Vector3, WebGLRenderer } from "three";
import { Contact } from "./contact";
import { type DrawingStyle, type Layer, LINES_LAYER } from "./layers/layer";
import { ink, type SharedUniforms } from "./layers/materials";
import { penOn } from "./pen";
import { forward, isOpened } from "./pose";
import { drawsByProcessor, SHIFTS, Smoothing } from "./smoothing";
import { snapshot } from "./snapshot";
import type { Rectangle, View } from "./view";

/** How much the lines of what is looked through pale. */
const PALE = 0.6;

/** How much what is farthest pales, from within the building and from without, and over how far. */
const HAZE_WITHIN = { most: 0.34, overM: 22 };
const HAZE_WITHOUT = { most: 0.24, over: 0.8 };

/** Draws the layers as a view sees them, on its part of the canvas: the building first, then what marks it. */
export class Renderer {
  private readonly gl: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly over = new Scene();
  private readonly marks: Layer[] = [];
  private readonly contact: Contact;
  /** Where each frame has one sample for a pixel, what makes those at rest smooth. */
  private readonly smoothing: Smoothing | null;
  /** What shade and lines were worked out for. */
  private worked = "";
  private heightPx = 1;

  constructor(
    canvas: HTMLCanvasElement,
    private readonly shared: SharedUniforms,
    private readonly building: readonly Layer[],
    private readonly bounds: () => Box3,
  ) {
    const quick = !drawsByProcessor();
    this.gl = new WebGLRenderer({
      canvas,
      antialias: quick,
      powerPreference: "high-performance",
      // A place on the Trail has its picture, and a view keeps what it shows, without another frame.
      preserveDrawingBuffer: true,
    });
    this.onScreen();
    this.gl.setScissorTest(true);
    for (const scene of [this.scene, this.over]) scene.matrixAutoUpdate = false;
    this.scene.add(...building.map((layer) => layer.root));
    this.contact = new Contact(this.gl, this.scene, building);
    this.smoothing = quick ? null : new Smoothing(this.gl);
  }

  /** Draw another layer over the building. */
  add(layer: Layer): void {
    this.marks.push(layer);
    this.over.add(layer.root);
  }

  resize(widthPx: number, heightPx: number): void {
    this.heightPx = heightPx;
    this.gl.setSize(widthPx, heightPx, false);
  }

  /** Draw at another size and so many pixels for each of its own, for a picture; undone by `resize`. */
  resizeFor({ width, height }: Rectangle, ratio: number): void {
    this.gl.setPixelRatio(ratio);
    this.resize(width, height);
  }

  /** As many pixels again as the screen has. */
  onScreen(): void {
    this.gl.setPixelRatio(Math.min(window.devicePixelRatio, 2));
  }

  setBackground(colour: string): void {
    this.gl.setClearColor(new Color(colour));
    this.shared.paper.value = ink(colour);
    this.shared.pen.value = ink(penOn(colour));
  }

  /** Show the background alone. */
  blank(): void {
    this.gl.setScissorTest(false);
    this.gl.clear();
    this.gl.setScissorTest(true);
  }

  /** How many samples a view at rest is drawn by. */
  get samples(): number {
    return this.smoothing ? SHIFTS.length : 1;
  }

  /** Draw one of the samples of a view at rest, and show the mean of those so far. */
  drawSample(view: View, place: Rectangle, style: DrawingStyle, full: string | null, number: number): void {
    if (!this.smoothing) {
      this.draw(view, place, style, full);
      return;
    }
    const ratio = this.gl.getPixelRatio();
    const { width, height } = place;
    const [by] = SHIFTS.slice(number);
    if (by && number > 0) view.camera.shiftBy({ by, width: width * ratio, height: height * ratio });
    this.draw(view, place, style, full);
    view.camera.shiftBy(null);
    view.follow();
    const bottom = this.heightPx - place.y - height;
    const [x, y] = [Math.round(place.x * ratio), Math.round(bottom * ratio)];
    this.smoothing.add(
      { x, y, width: Math.floor(width * ratio), height: Math.floor(height * ratio) },
      number,
    );
  }

  /** How many times as large as usual signs and letters are. */
  letters = 1;

  /**
   * Draw a view at once where it lies on the canvas. With a name of what it shows it is drawn in full, with the shade and
   * the lines that are worked out once for each.
   */
  draw(view: View, { x, y, width, height }: Rectangle, style: DrawingStyle, full: string | null): void {
    view.follow();
    const { pose } = view.navigation;
    const fromBelow = this.heightPx - y - height;
    this.gl.setViewport(x, fromBelow, width, height);
    this.gl.setScissor(x, fromBelow, width, height);
    this.shared.pixel.value = view.pixelM;
    const { clips } = view;
    this.shared.clipCount.value = clips.fill(this.shared.clips.value);
    this.shared.eye.value.copy(pose.eye);
    this.shared.sight.value.copy(forward(pose));
    const frame = {
      view: view.kind,
      pose,
      pixelM: view.pixelM,
      letters: this.letters,
      style,
      edges: style === "edges" ? !view.sketching : style !== "plain",
      clips,
      size: { width, height },
      pixelOf: (at: Vector3) => view.pixelOf(at),
    };
    this.setHaze(view);
    this.shared.blank.value = style === "lines" ? 1 : 0;
    this.shared.clear.value = style === "clear" ? 1 : 0;
    const layers = [...this.building, ...this.marks];
    const covered = layers.flatMap((layer) => layer.covers?.(frame) ?? []);
    for (const layer of layers) layer.ready?.({ ...frame, covered });
    const camera = view.camera.current;
    if (full !== null && full !== this.worked) {
      const ratio = this.gl.getPixelRatio();
      const awayM = pose.projection === "parallel" ? 1 : pose.eye.distanceTo(pose.target);
      this.contact.work(camera, Math.floor(width * ratio), Math.floor(height * ratio), view.pixelM * awayM);
      this.worked = full;
    }
    this.gl.render(this.scene, camera);
    if (full !== null) this.contact.lay(style !== "lines");
    this.gl.autoClear = false;
    this.gl.render(this.over, camera);
    this.gl.autoClear = true;
    if (pose.throughM > 0 && !isOpened(pose)) this.drawLookedThrough(view);
  }

  /** Let what is far pale; a drawing is as dark everywhere. */
  private setHaze(view: View): void {
    const haze = this.shared.haze.value;
    const { pose } = view.navigation;
    const bounds = this.bounds();
    const radius = bounds.isEmpty() ? 1 : bounds.getSize(haze).length() / 2;
    if (view.kind !== "stage") haze.set(0, 1, 0);
    else if (pose.projection === "parallel")
      haze.set(view.camera.current.near, 2 * HAZE_WITHOUT.over * radius, HAZE_WITHOUT.most);
    else {
      const outside = bounds.isEmpty() ? 0 : bounds.distanceToPoint(pose.eye);
      const within = Math.max(0, 1 - outside / 10);
      const mix = (inside: number, outsideIs: number) => inside * within + outsideIs * (1 - within);
      haze.set(
        outside,
        mix(HAZE_WITHIN.overM, HAZE_WITHOUT.over * radius),
        mix(HAZE_WITHIN.most, HAZE_WITHOUT.most),
      );
    }
  }

  /** What stands before the room that is looked into, as pale lines over it. */
  private drawLookedThrough(view: View): void {
    const camera = view.camera.current;
    view.camera.lookAtNear();
    camera.layers.set(LINES_LAYER);
    this.shared.pale.value = PALE;
    this.gl.autoClear = false;
    this.gl.clearDepth();
    this.gl.render(this.scene, camera);
    this.gl.autoClear = true;
    this.shared.pale.value = 0;
    camera.layers.set(0);
    view.follow();
  }

  /** Wait until the frame's pixels are there. */
  finish(): void {
    const gl = this.gl.getContext();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
  }

  /** A part of the canvas as it was drawn last, at most so wide. */
  picture(part: Rectangle, widthPx: number, type: "image/png" | "image/jpeg"): string {
    return snapshot(this.gl.domElement, this.gl.getPixelRatio(), part, widthPx, type);
  }

  /** What the last frame took. */
  get info() {
    return { ...this.gl.info.render, geometries: this.gl.info.memory.geometries };
  }

  dispose(): void {
    for (const layer of [...this.building, ...this.marks]) layer.dispose();
    this.contact.dispose();
    this.smoothing?.dispose();
    this.gl.dispose();
  }
}
