import { Color, DoubleSide, type IUniform, ShaderMaterial, type Texture, Vector3, type Vector4 } from "three";
import { clipUniform, MOST_PLANES } from "../clips";
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
  /** How much lines pale into what is behind them, 0 to 1, and what that is. */
  pale: IUniform<number>;
  paper: IUniform<Color>;
}

/** Fine edges are at most 60 mm long; they are drawn where they can be 1.5 pixels or more. */
const FINE_M = 0.06;
const LEAST_PX = 1.5;

/** How far from the eye fine edges are drawn, in metres. */
export function fineReach(pixel: number, parallel: boolean): number {
  const reach = FINE_M / LEAST_PX / pixel;
  return parallel ? (reach >= 1 ? Number.POSITIVE_INFINITY : 0) : reach;
}

export function sharedUniforms(): SharedUniforms {
  return {
    states: { value: null },
    colours: { value: null },
    sun: { value: new Vector3(0.38, -0.52, 0.76).normalize() },
    pixel: { value: 0.001 },
    clips: { value: clipUniform() },
    clipCount: { value: 0 },
    standIn: { value: 1 },
    eye: { value: new Vector3() },
    sight: { value: new Vector3(0, 1, 0) },
    pale: { value: 0 },
    paper: { value: new Color() },
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
  in float component;
  out vec3 tone;
  #ifdef CUT
  out highp vec3 place;
  flat out vec4 section;
  flat out int whole;
  /** Above zero where one looks at the inside. */
  out float within;
  #endif

  const vec3 PICK = vec3(0.878, 0.541, 0.118);
  const vec3 HERE = vec3(0.043, 0.435, 0.471);
  const vec3 INK = vec3(0.118, 0.169, 0.212);

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
      bool drawn = state.r > 0.25 && state.r < 0.75;
    #else
      bool drawn = state.r > 0.75;
    #endif
    vec4 seen = modelViewMatrix * vec4(position, 1.0);
    #ifdef FINE
      drawn = drawn && pixel * (isOrthographic ? 1.0 : -seen.z) < FINE;
    #endif
    if (!drawn) {
      gl_Position = vec4(0.0, 0.0, 2.0, 1.0);
      tone = vec3(0.0);
      return;
    }
    // Faces of different components that lie in one plane keep a steady order, and lines lie
    // before their faces: each is moved along the line of sight, where it does not show.
    float nearer = float(number % 8) * 2.0e-5;
    #ifdef LINES
      nearer += 9.0e-4;
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
    vec3 base = own.rgb;
    if (state.g > 0.75) base = mix(base, PICK, 0.88);
    else if (state.g > 0.25) base = mix(base, HERE, 0.45);
    #ifdef CUT
      section = vec4(base, own.a * 255.0);
    #endif
    #ifdef LINES
      // Lines grow lighter with distance, so that far parts do not turn black.
      float far = clamp((-seen.z - 15.0) / 160.0, 0.0, 0.45);
      tone = state.g > 0.25 ? mix(base, INK, 0.55) : mix(mix(base * 0.5, INK, 0.45), base, far);
      tone = mix(tone, paper, pale);
    #else
      vec3 n = normalize(mat3(modelMatrix) * normal);
      float day = 0.5 + 0.5 * dot(n, sun);
      float sky = 0.5 + 0.5 * n.z;
      tone = base * (0.60 + 0.30 * day + 0.16 * sky);
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
    #ifdef CUT
    if (whole == 1) return;
    for (int i = 0; i < clipCount; i++) if (dot(clips[i].xyz, place) > clips[i].w) discard;
    #ifndef LINES
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

/** A pass as it is drawn where nothing cuts the view, and where planes do: what they need costs nothing without them. */
export interface Pass {
  plain: ShaderMaterial;
  cut: ShaderMaterial;
}

export type ModelMaterials = Record<"opaque" | "glass" | "edges" | "fineEdges" | "faded", Pass>;

function make(
  shared: SharedUniforms,
  first: IUniform<number>,
  opacity: number,
  defines: Record<string, string>,
): Pass {
  const plain = new ShaderMaterial({
    glslVersion: "300 es",
    uniforms: { ...shared, first, opacity: { value: opacity } },
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    defines,
    side: DoubleSide,
    transparent: opacity < 1,
    depthWrite: opacity >= 1,
  });
  const cut = plain.clone();
  // A clone has uniforms of its own; these are shared by reference.
  cut.uniforms = plain.uniforms;
  cut.defines = { ...defines, CUT: "" };
  return { plain, cut };
}

/** The passes of a model; `first` is the dense number of its first component. */
export function modelMaterials(shared: SharedUniforms, first: IUniform<number>): ModelMaterials {
  const opaque = make(shared, first, 1, {});
  return {
    opaque,
    glass: make(shared, first, 0.3, {}),
    edges: make(shared, first, 1, { LINES: "" }),
    fineEdges: make(shared, first, 1, { LINES: "", FINE: (FINE_M / LEAST_PX).toFixed(4) }),
    faded: make(shared, first, 0.13, { FADED: "" }),
  };
}
