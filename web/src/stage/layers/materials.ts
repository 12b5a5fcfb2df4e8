import { Color, DoubleSide, type IUniform, ShaderMaterial, type Texture, Vector3, type Vector4 } from "three";
import { MOST_PLANES } from "../../api/constants";
import { tone } from "../../style/tone";
import { clipUniform } from "../clips";
import { HATCHING } from "./hatching";

/** Uniforms that all materials share by reference. */
export interface SharedUniforms {
  states: IUniform<Texture | null>;
  colours: IUniform<Texture | null>;
  sun: IUniform<Vector3>;
  /** How wide a pixel is on the model, in metres: at 1 m from the eye, or anywhere in a parallel view. */
  pixel: IUniform<number>;
  /** The planes that cut the view, and how many: normal, and how far along it they lie. */
  clips: IUniform<Vector4[]>;
  clipCount: IUniform<number>;
  /** 1 where insides stand for cut faces, 0 where the core's own faces are drawn. */
  standIn: IUniform<number>;
  /** Where the eye is, and where it looks. */
  eye: IUniform<Vector3>;
  sight: IUniform<Vector3>;
  /** How far paling by distance begins, over how far it comes, and how much it is at most. */
  haze: IUniform<Vector3>;
  /** 1 where faces are drawn as paper, so that lines alone are left. */
  blank: IUniform<number>;
  /** 1 where everything is looked through. */
  clear: IUniform<number>;
  /** In which colours the selection and what is under the cursor are drawn. */
  pick: IUniform<Color>;
  here: IUniform<Color>;
  /** How much lines pale into what is behind them, 0 to 1, and what that is. */
  pale: IUniform<number>;
  paper: IUniform<Color>;
  /** What lines are drawn in where nothing but the background lies behind them. */
  pen: IUniform<Color>;
}

/** Fine edges are at most 60 mm long; they are drawn where they can be 1.5 pixels or more. */
const FINE_M = 0.06;
const LEAST_PX = 1.5;

/** How far from the eye fine edges are drawn, in metres. */
export function fineReach(pixel: number, parallel: boolean): number {
  const reach = FINE_M / LEAST_PX / pixel;
  return parallel ? (reach >= 1 ? Number.POSITIVE_INFINITY : 0) : reach;
}

/** A colour as it comes to the screen, whatever the space that colours are reckoned in. */
export function ink(colour: string): Color {
  return new Color().setHex(Number.parseInt(colour.slice(1), 16), "");
}

export function sharedUniforms(): SharedUniforms {
  return {
    states: { value: null },
    colours: { value: null },
    sun: { value: new Vector3(0.38, -0.52, 0.76).normalize() },
    haze: { value: new Vector3(0, 1, 0) },
    blank: { value: 0 },
    clear: { value: 0 },
    pixel: { value: 0.001 },
    clips: { value: clipUniform() },
    clipCount: { value: 0 },
    standIn: { value: 1 },
    eye: { value: new Vector3() },
    sight: { value: new Vector3(0, 1, 0) },
    pick: { value: ink(tone.pick) },
    here: { value: ink(tone.here) },
    pale: { value: 0 },
    paper: { value: new Color() },
    pen: { value: ink(tone.ink) },
  };
}

// Which state a pass draws; a component of another state collapses to nothing.
const VERTEX = /* glsl */ `
  uniform sampler2D states;
  uniform sampler2D colours;
  uniform vec3 sun;
  uniform float first;
  uniform float pixel;
  uniform float standIn;
  uniform float pale;
  uniform vec3 paper;
  uniform vec3 pen;
  uniform vec3 haze;
  uniform float blank;
  uniform float clear;
  in float component;
  in vec4 paint;
  out vec3 tone;
  #ifdef GLASS
  out float cover;
  #endif
  #ifdef SURFACE
  out vec3 facing;
  out vec3 sightTo;
  flat out float named;
  #endif
  #ifdef CUT
  out highp vec3 place;
  flat out vec4 section;
  flat out int whole;
  /** Above zero where one looks at the inside. */
  out float within;
  #endif

  uniform vec3 pick;
  uniform vec3 here;
  const vec3 INK = vec3(0.118, 0.169, 0.212);
  /** What a file gives no colour. */
  const vec3 BARE = vec3(0.80, 0.78, 0.74);
  const vec3 PANE = vec3(0.78, 0.86, 0.88);
  /** Across the sun: tells walls apart that it does not reach. */
  const vec3 SIDE = vec3(0.807, 0.590, 0.0);
  const vec3 WARM = vec3(1.025, 1.0, 0.965);
  const vec3 COOL = vec3(0.955, 0.985, 1.03);

  vec3 lit(vec3 base, vec3 n) {
    float day = 0.5 + 0.5 * dot(n, sun);
    float light = 0.66 + 0.25 * day + 0.09 * max(n.z, 0.0) + 0.07 * max(-n.z, 0.0) + 0.045 * dot(n, SIDE);
    return base * light * mix(COOL, WARM, day);
  }

  void main() {
    int number = int(first + component + 0.5);
    ivec2 at = ivec2(number % 1024, number / 1024);
    vec4 state = texelFetch(states, at, 0);
    #ifdef CUT
      whole = state.b > 0.5 ? 1 : 0;
      within = 0.0;
      place = (modelMatrix * vec4(position, 1.0)).xyz;
      section = vec4(0.0);
    #endif
    #ifdef FADED
      bool drawn = state.r > 0.25 && (state.r < 0.75 || clear > 0.5);
    #else
      bool drawn = state.r > 0.75;
    #endif
    vec4 seen = modelViewMatrix * vec4(position, 1.0);
    if (!drawn) {
      gl_Position = vec4(0.0, 0.0, 2.0, 1.0);
      tone = vec3(0.0);
      #ifdef GLASS
      cover = 0.0;
      #endif
      #ifdef SURFACE
      facing = vec3(0.0);
      sightTo = vec3(0.0);
      named = 0.0;
      #endif
      return;
    }
    // Faces of different components that lie in one plane keep a steady order, and lines lie
    // before their faces: each is moved along the line of sight, where it does not show.
    float nearer = float(number % 8) * 2.0e-5;
    #ifdef LINES
      nearer += min(5.0e-4, 0.02 / max(1.0, -seen.z));
    #endif
    #if defined(CUT) && !defined(LINES)
      // Where a closed body is cut one looks at its inside, which stands for the section until the
      // core's own face is there. It goes before a face that it stands on, by so little that it does
      // not come before its own front.
      if (whole == 0 && standIn > 0.5) {
        vec3 turned = mat3(modelViewMatrix) * normal;
        within = isOrthographic ? -turned.z : dot(turned, normalize(seen.xyz));
        if (within > 0.0) nearer += 1.5e-4;
      }
    #endif
    #ifdef CUT
      const float FLAT = 2.0;
    #else
      const float FLAT = 40.0;
    #endif
    if (isOrthographic) seen.z += nearer * FLAT;
    else seen.xyz *= 1.0 - nearer;
    gl_Position = projectionMatrix * seen;
    vec4 own = texelFetch(colours, at, 0);
    // The file's own colours, where they are asked for; those of a part of a component are its own.
    bool ofFile = own.a > 0.5;
    vec3 base = ofFile ? (paint.a > 0.0 ? paint.rgb : BARE) : own.rgb;
    #ifdef GLASS
      if (!ofFile) base = mix(base, PANE, 0.7);
    #endif
    if (state.g > 0.75) base = mix(base, pick, 0.9);
    else if (state.g > 0.25) base = mix(base, here, 0.5);
    #ifdef CUT
      section = vec4(base, own.a * 255.0);
    #endif
    #ifdef LINES
      // Lines grow lighter with distance, so that far parts do not turn black.
      float far = clamp((-seen.z - 15.0) / 160.0, 0.0, 0.45);
      tone = state.g > 0.25 ? mix(base, INK, 0.55) : mix(mix(base * 0.5, INK, 0.45), base, far);
      if (blank > 0.5 && state.g < 0.25) tone = pen;
      #ifdef FINE
        // Fine lines go over into their face before they are too small to be seen.
        vec3 face = blank > 0.5 ? paper : lit(base, normalize(mat3(modelMatrix) * normal));
        tone = mix(tone, face, smoothstep(0.4 * FINE, FINE, pixel * (isOrthographic ? 1.0 : -seen.z)));
      #endif
      tone = mix(tone, paper, pale);
    #else
      vec3 n = normalize(mat3(modelMatrix) * normal);
      tone = blank > 0.5 ? mix(paper, base, state.g > 0.25 ? 0.8 : 0.0) : lit(base, n);
      // Selection is the strongest there is, however it is turned.
      if (state.g > 0.75) tone = mix(tone, base, 0.65);
    #endif
    // Selection stays as strong however far it is.
    float away = max(0.0, -seen.z - haze.x);
    if (state.g < 0.25) tone = mix(tone, paper, haze.z * (1.0 - exp(-away / haze.y)));
    #ifdef GLASS
      vec3 turned = normalize(mat3(modelViewMatrix) * normal);
      float square = abs(isOrthographic ? turned.z : dot(turned, normalize(seen.xyz)));
      float pane = paint.a > 0.0 ? clamp(paint.a, 0.14, 0.6) : 0.3;
      cover = state.g > 0.25 ? 0.75 : pane + 0.3 * pow(1.0 - square, 3.0);
    #endif
    #ifdef SURFACE
      facing = mat3(modelViewMatrix) * normal;
      sightTo = isOrthographic ? vec3(0.0, 0.0, -1.0) : seen.xyz;
      named = float(number % 1024);
    #endif
  }
`;

const FRAGMENT = /* glsl */ `
  precision highp float;
  uniform float opacity;
  uniform vec4 clips[${MOST_PLANES}];
  uniform int clipCount;
  uniform vec3 eye;
  uniform vec3 sight;
  uniform float pixel;
  in vec3 tone;
  #ifdef GLASS
  in float cover;
  #endif
  #ifdef SURFACE
  in vec3 facing;
  in vec3 sightTo;
  flat in float named;
  #endif
  out vec4 colour;
  #ifdef CUT
  in highp vec3 place;
  flat in vec4 section;
  flat in int whole;
  in float within;
  ${HATCHING}
  #endif

  void main() {
    colour = vec4(tone, opacity);
    #ifdef GLASS
    colour.a = cover;
    #endif
    #ifdef SURFACE
    vec3 n = normalize(facing);
    float towards = dot(n, normalize(sightTo));
    // A face that is seen on edge has no depth that could be relied on.
    if (abs(towards) < 0.004) discard;
    colour = vec4(0.5 + 0.5 * (towards > 0.0 ? -n : n), named);
    #endif
    #ifdef CUT
    if (whole == 1) return;
    for (int i = 0; i < clipCount; i++) if (dot(clips[i].xyz, place) > clips[i].w) discard;
    #if !defined(LINES) && !defined(SURFACE)
    if (within <= 0.0) return;
    // The plane through which the line of sight to this place came in last, if it did.
    vec3 from = isOrthographic ? place - sight * 1.0e4 : eye;
    float entered = -1.0;
    int through = -1;
    for (int i = 0; i < clipCount; i++) {
      float there = dot(clips[i].xyz, place) - clips[i].w;
      float here = dot(clips[i].xyz, from) - clips[i].w;
      if (here > 0.0) {
        float share = here / (here - there);
        if (share > entered) { entered = share; through = i; }
      }
    }
    if (through >= 0) {
      vec3 at = mix(from, place, entered);
      float away = isOrthographic ? 1.0 : dot(at - eye, sight);
      colour.rgb = hatched(section, at, clips[through].xyz, pixel * away);
    }
    #endif
    #endif
  }
`;

/** Faces go back by no more than this, so that lines behind a wall do not come through it. */
const MOST_BACK_M = 0.045;

/** How much of what a face falls away within a pixel it goes back by, where a pixel is so wide on it. */
export function backBy(pixelM: number): number {
  return Math.min(1, MOST_BACK_M / pixelM);
}

/** A pass as it is drawn where nothing cuts the view, and where planes do: what they need costs nothing without them. */
export interface Pass {
  plain: ShaderMaterial;
  cut: ShaderMaterial;
}

/** `surface` draws which way faces look, and whose they are, in place of their colours. */
export type ModelMaterials = Record<"opaque" | "glass" | "edges" | "fineEdges" | "faded" | "surface", Pass>;

function make(
  shared: SharedUniforms,
  first: IUniform<number>,
  opacity: number,
  defines: Record<string, string>,
): Pass {
  const clear = opacity < 1 || "GLASS" in defines;
  const plain = new ShaderMaterial({
    glslVersion: "300 es",
    uniforms: { ...shared, first, opacity: { value: opacity } },
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    defines,
    side: DoubleSide,
    transparent: clear,
    depthWrite: !clear,
    // Faces go back by as much as they fall away within a pixel, so that lines on them are not broken.
    polygonOffset: !("LINES" in defines),
    polygonOffsetUnits: 1,
  });
  const cut = plain.clone();
  // A clone has uniforms of its own; these are shared by reference.
  cut.uniforms = plain.uniforms;
  cut.defines = { ...defines, CUT: "" };
  return { plain, cut };
}

/** The passes of a model; `first` is the dense number of its first component. */
export function modelMaterials(shared: SharedUniforms, first: IUniform<number>): ModelMaterials {
  return {
    opaque: make(shared, first, 1, {}),
    glass: make(shared, first, 1, { GLASS: "" }),
    edges: make(shared, first, 1, { LINES: "" }),
    fineEdges: make(shared, first, 1, { LINES: "", FINE: (FINE_M / LEAST_PX).toFixed(4) }),
    faded: make(shared, first, 0.13, { FADED: "" }),
    surface: make(shared, first, 1, { SURFACE: "" }),
  };
}
