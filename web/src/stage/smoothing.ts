import {
  AddEquation,
  CustomBlending,
  FramebufferTexture,
  HalfFloatType,
  NearestFilter,
  OneFactor,
  type ShaderMaterial,
  type Texture,
  Vector2,
  type WebGLRenderer,
  WebGLRenderTarget,
} from "three";
import { FullScreenQuad } from "three/addons/postprocessing/Pass.js";
import { overAll } from "./overAll";
import type { Rectangle } from "./view";

/** By how much of a pixel a view is shifted for each of its samples: the one that is seen first, and four on a turned grid. */
export const SHIFTS = [
  [0, 0],
  [0.125, 0.375],
  [-0.375, 0.125],
  [0.375, -0.125],
  [-0.125, -0.375],
] as const;

/** What the makers of renderers that are programs for a processor call them. */
const PROGRAMS = /swiftshader|llvmpipe|softpipe|software|basic render/i;

/**
 * Whether this machine draws with its processor: there several samples for each pixel of every frame make frames take two
 * to three times as long.
 */
export function drawsByProcessor(): boolean {
  const context = document.createElement("canvas").getContext("webgl2");
  if (!context) return false;
  const told = context.getExtension("WEBGL_debug_renderer_info");
  const name: unknown = context.getParameter(told ? told.UNMASKED_RENDERER_WEBGL : context.RENDERER);
  context.getExtension("WEBGL_lose_context")?.loseContext();
  return PROGRAMS.test(String(name));
}

const FRAGMENT = /* glsl */ `
  uniform sampler2D source;
  uniform vec2 corner;
  uniform vec2 share;
  uniform float weight;
  void main() { gl_FragColor = texture2D(source, corner + at * share) * weight; }
`;

const taking = () =>
  overAll(FRAGMENT, {
    source: { value: null },
    corner: { value: new Vector2() },
    share: { value: new Vector2(1, 1) },
    weight: { value: 1 },
  });

/** What is taken from a texture, from which corner on and how much of it, by which weight. */
interface Given {
  source: Texture;
  corner: readonly [number, number];
  share: readonly [number, number];
  weight: number;
}

/** Makes lines smooth at rest where they are not while moving: the mean of the same view, shifted by parts of a pixel. */
export class Smoothing {
  private sample: FramebufferTexture | null = null;
  private readonly sum = new WebGLRenderTarget(1, 1, {
    type: HalfFloatType,
    minFilter: NearestFilter,
    magFilter: NearestFilter,
    depthBuffer: false,
  });
  private readonly quad = new FullScreenQuad();
  private readonly adding = taking();
  private readonly writing = taking();

  constructor(private readonly gl: WebGLRenderer) {
    this.adding.blending = CustomBlending;
    this.adding.blendEquation = AddEquation;
    this.adding.blendSrc = OneFactor;
    this.adding.blendDst = OneFactor;
    this.adding.transparent = true;
  }

  /** Take what was just drawn at a place (device pixels from the bottom left) as a sample, and show the mean of all so far. */
  add(place: Rectangle, number: number): void {
    const { gl, sum } = this;
    const canvas = gl.domElement;
    if (sum.width !== canvas.width || sum.height !== canvas.height) sum.setSize(canvas.width, canvas.height);
    const { width, height } = place;
    if (this.sample?.image.width !== width || this.sample.image.height !== height) {
      this.sample?.dispose();
      this.sample = new FramebufferTexture(width, height);
    }
    gl.copyFramebufferToTexture(this.sample, new Vector2(place.x, place.y));
    const { autoClear } = gl;
    gl.autoClear = false;
    sum.viewport.set(place.x, place.y, width, height);
    sum.scissor.set(place.x, place.y, width, height);
    sum.scissorTest = true;
    gl.setRenderTarget(sum);
    this.fill(number ? this.adding : this.writing, {
      source: this.sample,
      corner: [0, 0],
      share: [1, 1],
      weight: 1,
    });
    gl.setRenderTarget(null);
    if (number > 0)
      this.fill(this.writing, {
        source: sum.texture,
        corner: [place.x / canvas.width, place.y / canvas.height],
        share: [width / canvas.width, height / canvas.height],
        weight: 1 / (number + 1),
      });
    gl.autoClear = autoClear;
  }

  private fill(by: ShaderMaterial, given: Given): void {
    const { source, corner, share, weight } = by.uniforms;
    if (source) source.value = given.source;
    corner?.value.set(...given.corner);
    share?.value.set(...given.share);
    if (weight) weight.value = given.weight;
    this.quad.material = by;
    this.quad.render(this.gl);
  }

  dispose(): void {
    this.sample?.dispose();
    this.sum.dispose();
    this.adding.dispose();
    this.writing.dispose();
    this.quad.dispose();
  }
}
