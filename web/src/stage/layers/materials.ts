import { Color, DoubleSide, type IUniform, ShaderMaterial, type Texture, Vector3 } from "three";

/** Uniforms that all materials share by reference. */
export interface SharedUniforms {
  states: IUniform<Texture | null>;
  colours: IUniform<Texture | null>;
  sun: IUniform<Vector3>;
  /** How wide a pixel is on the model, in metres: at 1 m from the eye, or anywhere in a parallel view. */
  pixel: IUniform<number>;
  /** 1 where the view is cut, so that what is cut shows its filled section. */
  cut: IUniform<number>;
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
    cut: { value: 0 },
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
  uniform float cut;
  uniform float pale;
  uniform vec3 paper;
  in float component;
  out vec3 tone;

  const vec3 PICK = vec3(0.878, 0.541, 0.118);
  const vec3 HERE = vec3(0.043, 0.435, 0.471);
  const vec3 INK = vec3(0.118, 0.169, 0.212);

  void main() {
    int number = int(first + component + 0.5);
    ivec2 at = ivec2(number % 1024, number / 1024);
    vec4 state = texelFetch(states, at, 0);
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
    #ifdef LINES
      const bool within = false;
    #else
      // Where a closed body is cut open one looks at its inside, which stands for the section. It
      // goes before a face that it stands on.
      bool within = cut > 0.5 && (mat3(modelViewMatrix) * normal).z < -0.001;
    #endif
    if (cut > 0.5) seen.z += nearer * 2.0 + (within ? 5.0e-4 : 0.0);
    else if (isOrthographic) seen.z += nearer * 40.0;
    else seen.xyz *= 1.0 - nearer;
    gl_Position = projectionMatrix * seen;
    vec3 base = texelFetch(colours, at, 0).rgb;
    if (state.g > 0.75) base = mix(base, PICK, 0.88);
    else if (state.g > 0.25) base = mix(base, HERE, 0.45);
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
      if (within) tone = state.g > 0.25 ? base : mix(base, INK, 0.82);
    #endif
  }
`;

const FRAGMENT = /* glsl */ `
  precision mediump float;
  uniform float opacity;
  in vec3 tone;
  out vec4 colour;
  void main() {
    colour = vec4(tone, opacity);
  }
`;

export interface ModelMaterials {
  opaque: ShaderMaterial;
  glass: ShaderMaterial;
  edges: ShaderMaterial;
  fineEdges: ShaderMaterial;
  faded: ShaderMaterial;
}

function make(
  shared: SharedUniforms,
  first: IUniform<number>,
  opacity: number,
  defines: Record<string, string>,
) {
  return new ShaderMaterial({
    glslVersion: "300 es",
    uniforms: { ...shared, first, opacity: { value: opacity } },
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    defines,
    side: DoubleSide,
    transparent: opacity < 1,
    depthWrite: opacity >= 1,
  });
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
