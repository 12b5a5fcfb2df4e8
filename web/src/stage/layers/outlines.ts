import { Color, Group, type Vector3 } from "three";
import { LineMaterial } from "three/addons/lines/LineMaterial.js";
import { LineSegments2 } from "three/addons/lines/LineSegments2.js";
import { LineSegmentsGeometry } from "three/addons/lines/LineSegmentsGeometry.js";
import { tone } from "../../style/tone";
import type { Layer } from "./layer";

const PICK = new Color(tone.pick);
const WIDE_PX = 3;

/** The edges of single components, drawn heavily and through whatever stands before them. */
export class Outlines implements Layer {
  readonly name = "outlines";
  readonly root = new Group();
  private readonly line = new LineMaterial({
    color: PICK,
    linewidth: WIDE_PX,
    depthTest: false,
    depthWrite: false,
  });

  constructor(private readonly changed: () => void) {}

  get shown(): boolean {
    return this.root.children.length > 0;
  }

  /** Outline what has these edges; none for nothing. */
  show(edges: Iterable<readonly [Vector3, Vector3]>): void {
    this.clear();
    const ends = [...edges].flatMap(([a, b]) => [...a.toArray(), ...b.toArray()]);
    if (ends.length) {
      const drawn = new LineSegments2(new LineSegmentsGeometry().setPositions(ends), this.line);
      drawn.renderOrder = 6;
      drawn.frustumCulled = false;
      this.root.add(drawn);
    }
    this.changed();
  }

  private clear(): void {
    for (const child of this.root.children) if (child instanceof LineSegments2) child.geometry.dispose();
    this.root.clear();
  }

  dispose(): void {
    this.clear();
    this.line.dispose();
  }
}
