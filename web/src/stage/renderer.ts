import { Color, Scene, type Vector3, WebGLRenderer } from "three";
import { LINES_LAYER } from "./layers/chunks";
import type { Layer } from "./layers/layer";
import type { SharedUniforms } from "./layers/materials";
import { forward, isOpened } from "./pose";
import { snapshot } from "./snapshot";
import type { Rectangle, View } from "./view";

/** How much the lines of what is looked through pale. */
const PALE = 0.6;

/** Draws the layers as a view sees them, on its part of the canvas. */
export class Renderer {
  private readonly gl: WebGLRenderer;
  private readonly scene = new Scene();
  private heightPx = 1;

  constructor(
    canvas: HTMLCanvasElement,
    private readonly shared: SharedUniforms,
    private readonly layers: readonly Layer[],
  ) {
    this.gl = new WebGLRenderer({
      canvas,
      antialias: true,
      powerPreference: "high-performance",
      // A place on the Trail has its picture, and a view keeps what it shows, without another frame.
      preserveDrawingBuffer: true,
    });
    this.gl.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    this.gl.setScissorTest(true);
    this.scene.matrixAutoUpdate = false;
    this.scene.add(...layers.map((layer) => layer.root));
  }

  resize(widthPx: number, heightPx: number): void {
    this.heightPx = heightPx;
    this.gl.setSize(widthPx, heightPx, false);
  }

  setBackground(colour: string): void {
    this.gl.setClearColor(new Color(colour));
    this.shared.paper.value.set(colour);
  }

  /** Draw a view at once where it lies on the canvas. */
  draw(view: View, { x, y, width, height }: Rectangle, edges: boolean): void {
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
      edges,
      clips,
      size: { width, height },
      pixelOf: (at: Vector3) => view.pixelOf(at),
    };
    for (const layer of this.layers) layer.ready?.(frame);
    this.gl.render(this.scene, view.camera.current);
    if (pose.throughM > 0 && !isOpened(pose)) this.drawLookedThrough(view);
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
    for (const layer of this.layers) layer.dispose();
    this.gl.dispose();
  }
}
