import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Group,
  LineSegments,
  Mesh,
  ShaderMaterial,
} from "three";
import { MOST_PLANES } from "../../api/constants";
import type { Frame, Layer } from "./layer";
import { ink, type SharedUniforms } from "./materials";

/** Bodies as the core tells them, corner after corner, and in which colour they are drawn. */
export interface Bodies {
  colour: string;
  triangles: Float32Array;
  edges: Float32Array;
  /** Whether they are filled, in stripes; else their edges alone are drawn. */
  filled: boolean;
}

const VERTEX = /* glsl */ `
  out highp vec3 place;
  void main() {
    place = position;
    gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
  }
`;

/** Stripes on the screen, so that what is gone is told by more than its colour. */
const FRAGMENT = /* glsl */ `
  precision highp float;
  uniform vec4 clips[${MOST_PLANES}];
  uniform int clipCount;
  uniform vec3 tint;
  uniform float striped;
  in highp vec3 place;
  out vec4 colour;
  void main() {
    for (int i = 0; i < clipCount; i++) if (dot(clips[i].xyz, place) > clips[i].w) discard;
    float stripe = step(4.0, mod(gl_FragCoord.x + gl_FragCoord.y, 8.0));
    colour = vec4(tint, mix(1.0, mix(0.18, 0.6, stripe), striped));
  }
`;

/** Components of an older issue where they stood: they are looked through and cannot be picked. */
export class GoneBodies implements Layer {
  readonly name = "gone";
  readonly root = new Group();
  private readonly materials: ShaderMaterial[] = [];

  constructor(
    private readonly changed: () => void,
    private readonly shared: SharedUniforms,
  ) {}

  /** How many kinds of bodies are drawn. */
  get count(): number {
    return this.root.children.length;
  }

  /** Draw these, in place of those before. */
  show(all: readonly Bodies[]): void {
    if (!all.length && !this.count) return;
    this.clear();
    for (const { colour, triangles, edges, filled } of all) {
      if (filled && triangles.length) {
        const mesh = new Mesh(corners(triangles), this.material(colour, true));
        mesh.renderOrder = 3;
        this.root.add(mesh);
      }
      if (edges.length) {
        const lines = new LineSegments(corners(edges), this.material(colour, false));
        lines.renderOrder = 4;
        this.root.add(lines);
      }
    }
    for (const child of this.root.children) child.frustumCulled = false;
    this.changed();
  }

  private material(colour: string, striped: boolean): ShaderMaterial {
    const { clips, clipCount } = this.shared;
    const material = new ShaderMaterial({
      glslVersion: "300 es",
      uniforms: { clips, clipCount, tint: { value: ink(colour) }, striped: { value: striped ? 1 : 0 } },
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      side: DoubleSide,
      transparent: true,
      depthWrite: false,
    });
    this.materials.push(material);
    return material;
  }

  ready({ view }: Frame): void {
    this.root.visible = view === "stage";
  }

  private clear(): void {
    for (const child of this.root.children)
      if (child instanceof Mesh || child instanceof LineSegments) child.geometry.dispose();
    for (const material of this.materials.splice(0)) material.dispose();
    this.root.clear();
  }

  dispose(): void {
    this.clear();
  }
}

function corners(positions: Float32Array): BufferGeometry {
  return new BufferGeometry().setAttribute("position", new BufferAttribute(positions, 3));
}
