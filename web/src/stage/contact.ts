import {
  AddEquation,
  type Camera,
  Color,
  CustomBlending,
  DepthTexture,
  HalfFloatType,
  NearestFilter,
  OneFactor,
  OrthographicCamera,
  type PerspectiveCamera,
  type Scene,
  type ShaderMaterial,
  SrcAlphaFactor,
  type Texture,
  UnsignedIntType,
  Vector2,
  type WebGLRenderer,
  WebGLRenderTarget,
  ZeroFactor,
} from "three";
import { GTAOPass } from "three/addons/postprocessing/GTAOPass.js";
import { FullScreenQuad } from "three/addons/postprocessing/Pass.js";
import { tone } from "../style/tone";
import { type Layer, SURFACES_LAYER } from "./layers/layer";
import { ink } from "./layers/materials";
import { overAll } from "./overAll";

/** How far things shade each other, at least; in a wide view so many pixels of it. */
const REACH_M = 0.55;
const REACH_PX = 9;
/** What stands farther before a surface than this does not shade it, as a share of the reach. */
const THICK = 1.0;

const STRENGTH = 0.8;
/** From this pixel ratio on lines are smooth without finer pixels. */
const FINE_ENOUGH = 1.5;

/** How far before the eye a depth is that the card keeps. */
const METRES = /* glsl */ `
  uniform float near;
  uniform float far;
  uniform bool parallel;
  float metres(float d) { return parallel ? mix(near, far, d) : near * far / (far - d * (far - near)); }
`;

/**
 * Where to draw a line that no edge of a component is: red where the surface ends before what lies behind it, green where
 * two components meet at an angle. The depth that the card keeps runs straight across a plane, so that it bends only where
 * there is more than one.
 */
const OUTLINES = /* glsl */ `
  uniform highp sampler2D depths;
  uniform highp sampler2D surfaces;
  uniform vec2 size;
  ${METRES}

  float depthAt(ivec2 p) { return texelFetch(depths, clamp(p, ivec2(0), ivec2(size) - 1), 0).r; }
  vec4 surfaceAt(ivec2 p) { return texelFetch(surfaces, clamp(p, ivec2(0), ivec2(size) - 1), 0); }
  bool same(vec4 one, vec4 other) { return abs(one.a - other.a) < 0.5; }

  /**
   * How far a surface that ends at a place lies before what begins beside it, as a share of the distance; none for what is
   * less than three pixels wide, and none before a gap of one, as there is between triangles.
   */
  float ends(ivec2 p, ivec2 way, vec4 own) {
    if (!same(own, surfaceAt(p - way)) || !same(own, surfaceAt(p - 2 * way))) return 0.0;
    float here = depthAt(p);
    float beside = min(depthAt(p + way), depthAt(p + 2 * way));
    // As it falls away by itself.
    float step = beside - here - max(0.0, here - depthAt(p - way));
    float z = metres(here);
    return parallel ? step * (far - near) / 12.0 : step * z * (far - near) / (near * far);
  }

  /** Whether another component begins beside a place, at an angle; what is less than three pixels wide is a gap, or too thin. */
  float meets(ivec2 p, ivec2 way) {
    vec4 one = surfaceAt(p);
    vec4 other = surfaceAt(p + way);
    if (same(one, other) || !same(one, surfaceAt(p - way)) || !same(one, surfaceAt(p - 2 * way))) return 0.0;
    if (!same(other, surfaceAt(p + 2 * way)) || !same(other, surfaceAt(p + 3 * way))) return 0.0;
    return smoothstep(0.12, 0.4, 1.0 - dot(normalize(2.0 * one.rgb - 1.0), normalize(2.0 * other.rgb - 1.0)));
  }

  void main() {
    ivec2 p = ivec2(at * size);
    float here = depthAt(p);
    if (here >= 1.0) { gl_FragColor = vec4(0.0); return; }
    vec4 own = surfaceAt(p);
    float end = max(
      max(ends(p, ivec2(1, 0), own), ends(p, ivec2(-1, 0), own)),
      max(ends(p, ivec2(0, 1), own), ends(p, ivec2(0, -1), own))
    );
    float corner = max(meets(p, ivec2(1, 0)), meets(p, ivec2(0, 1)));
    float outline = smoothstep(0.012, 0.05, end);
    gl_FragColor = vec4(outline, corner * (1.0 - outline), 0.0, 1.0);
  }
`;

/** What goes over a pixel: ink, and how much of its light is left. */
const JOINED = /* glsl */ `
  uniform sampler2D shade;
  uniform sampler2D outlines;
  uniform highp sampler2D depths;
  uniform vec2 size;
  uniform int finer;
  uniform float strength;
  ${METRES}

  ivec2 kept(ivec2 p) { return clamp(p, ivec2(0), ivec2(size) - 1); }

  void main() {
    // Each pixel is so many finer ones wide and high.
    ivec2 p = ivec2(at * size / float(finer)) * finer;
    vec2 line = vec2(0.0);
    float there = 0.0;
    for (int y = -1; y <= finer; y++)
      for (int x = -1; x <= finer; x++) {
        bool within = x >= 0 && y >= 0 && x < finer && y < finer;
        float weight = within ? 1.0 : 0.25;
        line += weight * texelFetch(outlines, kept(p + ivec2(x, y)), 0).rg;
        if (within) there += texelFetch(depths, kept(p + ivec2(x, y)), 0).r < 1.0 ? 1.0 : 0.0;
      }
    line /= float(finer * finer) * (finer > 1 ? 1.0 : 1.4);
    there /= float(finer * finer);
    float drawn = clamp(line.r * 0.85 + line.g * 0.75, 0.0, 0.8);
    // Shade is coarser than what is drawn, and is taken from what lies as far away.
    float own = metres(texelFetch(depths, kept(p), 0).r);
    vec2 step = 1.0 / vec2(textureSize(shade, 0));
    float sum = 0.0;
    float weights = 1.0e-4;
    for (int y = -1; y <= 1; y++)
      for (int x = -1; x <= 1; x++) {
        vec2 beside = at + vec2(x, y) * step;
        float depth = texelFetch(depths, kept(ivec2(beside * size)), 0).r;
        float off = abs(metres(depth) - own) / (0.02 * own + 0.05);
        float weight = depth < 1.0 ? exp(-off * off) : 0.0;
        sum += weight * texture2D(shade, beside).r;
        weights += weight;
      }
    float light = mix(1.0, (sum + 1.0e-4) / weights, strength * there);
    gl_FragColor = vec4(drawn, light, 0.0, 1.0);
  }
`;

/** Puts shade and lines over what is drawn: shade takes its share of the light, lines go over in ink. */
const LAID_OVER = /* glsl */ `
  uniform sampler2D joined;
  uniform vec3 ink;
  uniform float shaded;
  void main() {
    vec4 over = texture2D(joined, at);
    gl_FragColor = vec4(ink * over.r, (1.0 - over.r) * mix(1.0, over.g, shaded));
  }
`;

/**
 * What makes a resting view easier to read: shade in corners and under things, lines where components meet and heavier ones
 * where one ends before another. Worked out for a view once, and laid over it as often as it is drawn.
 */
export class Contact {
  private readonly surfaces: WebGLRenderTarget;
  private readonly outlined = new WebGLRenderTarget(1, 1, { depthBuffer: false });
  private readonly joined = new WebGLRenderTarget(1, 1, { depthBuffer: false });
  private readonly depths = new DepthTexture(1, 1, UnsignedIntType);
  private readonly size = new Vector2();
  private readonly near = { value: 0 };
  private readonly far = { value: 1 };
  private readonly parallel = { value: false };
  private readonly finer = { value: 1 };
  private readonly shaded = { value: 1 };
  private readonly quad = new FullScreenQuad();
  private readonly outlines: ShaderMaterial;
  private readonly joining: ShaderMaterial;
  private readonly laidOver: ShaderMaterial;
  /** For either kind of camera, made when it is first needed. */
  private readonly shades = new Map<string, GTAOPass>();
  private readonly shade: { value: Texture | null } = { value: null };

  constructor(
    private readonly gl: WebGLRenderer,
    private readonly scene: Scene,
    private readonly layers: readonly Layer[],
  ) {
    this.surfaces = new WebGLRenderTarget(1, 1, {
      type: HalfFloatType,
      minFilter: NearestFilter,
      magFilter: NearestFilter,
      depthTexture: this.depths,
    });
    const shared = {
      depths: { value: this.depths },
      size: { value: this.size },
      near: this.near,
      far: this.far,
      parallel: this.parallel,
    };
    this.outlines = overAll(OUTLINES, {
      ...shared,
      surfaces: { value: this.surfaces.texture },
    });
    this.joining = overAll(JOINED, {
      ...shared,
      shade: this.shade,
      outlines: { value: this.outlined.texture },
      finer: this.finer,
      strength: { value: STRENGTH },
    });
    this.laidOver = overAll(LAID_OVER, {
      joined: { value: this.joined.texture },
      shaded: this.shaded,
      ink: { value: ink(tone.ink) },
    });
    this.laidOver.blending = CustomBlending;
    this.laidOver.blendEquation = AddEquation;
    this.laidOver.blendSrc = OneFactor;
    this.laidOver.blendDst = SrcAlphaFactor;
    this.laidOver.blendSrcAlpha = ZeroFactor;
    this.laidOver.blendDstAlpha = OneFactor;
    this.laidOver.transparent = true;
  }

  private shadeOf(camera: Camera, width: number, height: number): GTAOPass {
    const found = this.shades.get(camera.type);
    const given = { depthTexture: this.depths, normalTexture: this.surfaces.texture };
    const pass = found ?? new GTAOPass(this.scene, camera, width, height, given);
    if (!found) {
      pass.output = GTAOPass.OUTPUT.Off; // it is laid over here
      pass.updatePdMaterial({ lumaPhi: 10, depthPhi: 2, normalPhi: 3, radius: 7, rings: 2, samples: 16 });
      this.shades.set(camera.type, pass);
    }
    if (pass.width !== width || pass.height !== height) pass.setSize(width, height);
    return pass;
  }

  /** Work out shade and lines of what a camera sees; so large in device pixels, `pixelM` wide each at `awayM`. */
  work(
    camera: PerspectiveCamera | OrthographicCamera,
    widthPx: number,
    heightPx: number,
    pixelM: number,
  ): void {
    const { gl, size } = this;
    const finer = gl.getPixelRatio() < FINE_ENOUGH ? 2 : 1;
    const [width, height] = [widthPx * finer, heightPx * finer];
    this.finer.value = finer;
    if (size.x !== width || size.y !== height) {
      size.set(width, height);
      this.surfaces.setSize(width, height);
      this.outlined.setSize(width, height);
      this.joined.setSize(widthPx, heightPx);
    }
    const before = {
      clear: gl.getClearColor(new Color()),
      alpha: gl.getClearAlpha(),
      mask: camera.layers.mask,
    };
    for (const layer of this.layers) layer.drawSurfaces?.(true);
    camera.layers.set(SURFACES_LAYER);
    gl.setRenderTarget(this.surfaces);
    gl.setClearColor(0x8080ff, 0);
    gl.render(this.scene, camera);
    camera.layers.mask = before.mask;
    for (const layer of this.layers) layer.drawSurfaces?.(false);
    gl.setClearColor(before.clear, before.alpha);

    this.near.value = camera.near;
    this.far.value = camera.far;
    this.parallel.value = camera instanceof OrthographicCamera;
    this.fill(this.outlined, this.outlines);

    const shade = this.shadeOf(camera, Math.ceil(widthPx / 2), Math.ceil(heightPx / 2));
    const radius = Math.max(REACH_M, REACH_PX * pixelM);
    shade.updateGtaoMaterial({
      radius,
      thickness: THICK * radius,
      distanceExponent: 1.4,
      scale: 1.25,
      samples: 16,
    });
    shade.render(gl, this.outlined, this.outlined, 0, false);
    this.shade.value = shade.gtaoMap;
    this.fill(this.joined, this.joining);
    gl.setRenderTarget(null);
  }

  private fill(target: WebGLRenderTarget, by: ShaderMaterial): void {
    this.gl.setRenderTarget(target);
    this.quad.material = by;
    this.quad.render(this.gl);
  }

  /** Lay over what was drawn what was worked out for it: shade and lines, or lines alone. */
  lay(shaded: boolean): void {
    this.shaded.value = shaded ? 1 : 0;
    this.quad.material = this.laidOver;
    const { autoClear } = this.gl;
    this.gl.autoClear = false;
    this.quad.render(this.gl);
    this.gl.autoClear = autoClear;
  }

  dispose(): void {
    for (const each of [this.surfaces, this.outlined, this.joined, this.depths]) each.dispose();
    for (const each of [this.outlines, this.joining, this.laidOver]) each.dispose();
    for (const pass of this.shades.values()) pass.dispose();
    this.quad.dispose();
  }
}
