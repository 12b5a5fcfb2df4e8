import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  Group,
  Mesh,
  MeshBasicMaterial,
  SphereGeometry,
  Vector3,
} from "three";
import { Line2 } from "three/addons/lines/Line2.js";
import { LineGeometry } from "three/addons/lines/LineGeometry.js";
import { LineMaterial } from "three/addons/lines/LineMaterial.js";
import { tone } from "../../style/tone";
import type { Layer } from "./layer";

const HERE = new Color(tone.here);
const PICK = new Color(tone.pick);
const WIDE_M = 0.14;
const ABOVE_M = 0.04;
const DOT_M = 0.08;

/** A ribbon flat over the floor along points, so wide. */
export function ribbon(points: readonly Vector3[]): Float32Array {
  const corners: number[] = [];
  for (let k = 0; k + 1 < points.length; k++) {
    const [a, b] = [points[k], points[k + 1]];
    if (!a || !b) continue;
    const side = new Vector3(b.y - a.y, a.x - b.x, 0);
    if (side.lengthSq() < 1e-12) continue;
    side.setLength(WIDE_M / 2);
    // Pieces overlap at turns by half their width.
    const over = b
      .clone()
      .sub(a)
      .setLength(WIDE_M / 2);
    const [from, to] = [a.clone().sub(over), b.clone().add(over)];
    const quad = [from.clone().add(side), from.clone().sub(side), to.clone().add(side), to.clone().sub(side)];
    for (const n of [0, 1, 2, 2, 1, 3]) {
      const p = quad[n];
      if (p) corners.push(p.x, p.y, p.z + ABOVE_M);
    }
  }
  return new Float32Array(corners);
}

/** A route over the floor, with dots where it is tight. */
export class RouteLine implements Layer {
  readonly name = "route";
  readonly root = new Group();
  private readonly line = new MeshBasicMaterial({ color: HERE, side: DoubleSide });
  /** Behind walls and floors it shows through, faintly and as wide wherever it is. */
  private readonly through = new LineMaterial({
    color: HERE,
    linewidth: 2.5,
    transparent: true,
    opacity: 0.6,
    depthTest: false,
    depthWrite: false,
  });
  private readonly dot = new MeshBasicMaterial({ color: PICK });

  constructor(private readonly changed: () => void) {}

  get shown(): boolean {
    return this.root.children.length > 0;
  }

  /** Draw a way, or put it away. */
  show(way: { points: readonly Vector3[]; tight: readonly Vector3[] } | null): void {
    this.clear();
    this.changed();
    if (!way) return;
    const { points, tight } = way;
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(ribbon(points), 3));
    this.root.add(new Mesh(geometry, this.line));
    const flat = points.flatMap((p) => [p.x, p.y, p.z + ABOVE_M]);
    if (points.length > 1) {
      const hidden = new Line2(new LineGeometry().setPositions(flat), this.through);
      hidden.renderOrder = 5;
      hidden.frustumCulled = false;
      this.root.add(hidden);
    }
    for (const at of tight) {
      const dot = new Mesh(new SphereGeometry(DOT_M, 16, 10), this.dot);
      dot.position.copy(at).z += DOT_M;
      dot.updateMatrixWorld(true);
      this.root.add(dot);
    }
  }

  private clear(): void {
    for (const child of this.root.children) if (child instanceof Mesh) child.geometry.dispose();
    this.root.clear();
  }

  dispose(): void {
    this.clear();
    this.line.dispose();
    this.through.dispose();
    this.dot.dispose();
  }
}
