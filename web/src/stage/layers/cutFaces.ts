import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  Group,
  Mesh,
  ShaderMaterial,
  type Vector3,
} from "three";
import { LineMaterial } from "three/addons/lines/LineMaterial.js";
import { LineSegments2 } from "three/addons/lines/LineSegments2.js";
import { LineSegmentsGeometry } from "three/addons/lines/LineSegmentsGeometry.js";
import { tone } from "../../style/tone";
import type { ClipPlane } from "../clips";
import { HATCHING } from "./hatching";
import { type Frame, type Layer, SURFACES_LAYER } from "./layer";
import type { SharedUniforms } from "./materials";

/** What one plane goes through, as the core worked it out: triangles and sides, and whose they are. */
export interface DrawnFace {
  plane: ClipPlane;
  triangles: Float32Array;
  of: Int32Array;
  lines: Float32Array;
}

const HEAVY_PX = 2.4;
const SAME = 1e-6;

const VERTEX = /* glsl */ `
  uniform sampler2D states;
  uniform sampler2D colours;
  uniform vec3 pick;
  uniform vec3 here;
  in float component;
  out highp vec3 place;
  flat out vec4 section;

  void main() {
    int number = int(component + 0.5);
    ivec2 at = ivec2(number % 1024, number / 1024);
    vec4 state = texelFetch(states, at, 0);
    place = position;
    vec4 own = texelFetch(colours, at, 0);
    vec3 base = own.rgb;
    if (state.g > 0.75) base = mix(base, pick, 0.9);
    else if (state.g > 0.25) base = mix(base, here, 0.5);
    section = vec4(base, own.a * 255.0);
    // Before the insides that stood for the face until it came.
    vec4 seen = modelViewMatrix * vec4(position, 1.0);
    if (isOrthographic) seen.z += 4.0e-3;
    else seen.xyz *= 1.0 - 4.0e-4;
    gl_Position = state.r > 0.75 ? projectionMatrix * seen : vec4(0.0, 0.0, 2.0, 1.0);
  }
`;

const FRAGMENT = /* glsl */ `
  precision highp float;
  uniform vec3 eye;
  uniform vec3 sight;
  uniform vec3 facing;
  uniform float pixel;
  in highp vec3 place;
  flat in vec4 section;
  out vec4 colour;
  ${HATCHING}

  void main() {
    #ifdef SURFACE
    vec3 n = mat3(viewMatrix) * facing;
    colour = vec4(0.5 + 0.5 * (n.z < 0.0 ? -n : n), 1023.0);
    return;
    #endif
    float away = isOrthographic ? 1.0 : dot(place - eye, sight);
    colour = vec4(hatched(section, place, facing, pixel * away), 1.0);
  }
`;

/** The cut faces of the building, filled and hatched, with heavy lines around them. */
export class CutFaces implements Layer {
  readonly name = "cutFaces";
  readonly root = new Group();
  /** Counts the times that faces came. */
  made = 0;
  private planes: readonly ClipPlane[] = [];
  private fills: { mesh: Mesh; material: ShaderMaterial; surface: ShaderMaterial }[] = [];
  private readonly line = new LineMaterial({
    color: new Color(tone.ink),
    linewidth: HEAVY_PX,
    polygonOffset: true,
    polygonOffsetFactor: -2,
    polygonOffsetUnits: -2,
  });

  constructor(
    private readonly changed: () => void,
    private readonly shared: SharedUniforms,
  ) {}

  /** Whether the faces that are there are those of some planes. */
  isOf(planes: readonly ClipPlane[]): boolean {
    return (
      planes.length === this.planes.length &&
      planes.every((plane, i) => {
        const other = this.planes[i];
        return (
          other !== undefined &&
          Math.abs(other.at - plane.at) < SAME &&
          other.normal.distanceToSquared(plane.normal) < SAME * SAME
        );
      })
    );
  }

  /** In which colour the sides of faces are drawn. */
  setPen(colour: string): void {
    this.line.color.set(colour);
  }

  /** Draw faces; they are seen for as long as the planes cut that they are of. */
  show(faces: readonly DrawnFace[]): void {
    this.clear();
    this.made++;
    this.planes = faces.map((face) => face.plane);
    for (const { plane, triangles, of, lines } of faces) {
      if (of.length) this.root.add(this.filled(plane.normal, triangles, of));
      if (lines.length) {
        const sides = new LineSegments2(new LineSegmentsGeometry().setPositions(lines), this.line);
        sides.renderOrder = 2;
        sides.frustumCulled = false;
        this.root.add(sides);
      }
    }
    this.changed();
  }

  private filled(normal: Vector3, triangles: Float32Array, of: Int32Array): Mesh {
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(triangles, 3));
    const component = new Float32Array(of.length * 3);
    for (let i = 0; i < component.length; i++) component[i] = of[Math.floor(i / 3)] ?? 0;
    geometry.setAttribute("component", new BufferAttribute(component, 1));
    const { states, colours, pick, here, pixel, eye, sight } = this.shared;
    const uniforms = { states, colours, pick, here, pixel, eye, sight, facing: { value: normal } };
    const make = (defines: Record<string, string>) =>
      new ShaderMaterial({
        glslVersion: "300 es",
        uniforms,
        vertexShader: VERTEX,
        fragmentShader: FRAGMENT,
        defines,
        side: DoubleSide,
      });
    const [material, surface] = [make({}), make({ SURFACE: "" })];
    const mesh = new Mesh(geometry, material);
    mesh.layers.enable(SURFACES_LAYER);
    this.fills.push({ mesh, material, surface });
    mesh.frustumCulled = false;
    mesh.renderOrder = 1;
    return mesh;
  }

  ready({ view, clips }: Frame): void {
    const current = view === "stage" && this.planes.length > 0 && this.isOf(clips.planes);
    this.root.visible = current;
    this.shared.standIn.value = current ? 0 : 1;
  }

  drawSurfaces(instead: boolean): void {
    for (const { mesh, material, surface } of this.fills) mesh.material = instead ? surface : material;
  }

  private clear(): void {
    for (const { material, surface } of this.fills) for (const each of [material, surface]) each.dispose();
    this.fills = [];
    for (const child of this.root.children) {
      if (child instanceof Mesh) child.geometry.dispose();
    }
    this.root.clear();
    this.planes = [];
  }

  dispose(): void {
    this.clear();
    this.line.dispose();
  }
}
