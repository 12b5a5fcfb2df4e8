import { Color, Group, Sprite, type Vector3 } from "three";
import { Line2 } from "three/addons/lines/Line2.js";
import { LineGeometry } from "three/addons/lines/LineGeometry.js";
import { LineMaterial } from "three/addons/lines/LineMaterial.js";
import { tone } from "../../style/tone";
import type { Frame, Layer } from "./layer";
import { markOf } from "./painted";

const PIXELS = 96;
const BUBBLE_PX = 30;

function bubble(tag: string): Sprite {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = PIXELS;
  const pen = canvas.getContext("2d");
  if (pen) {
    const middle = PIXELS / 2;
    pen.fillStyle = tone.paper;
    pen.strokeStyle = tone.here;
    pen.lineWidth = 6;
    pen.beginPath();
    pen.arc(middle, middle, middle - 6, 0, Math.PI * 2);
    pen.fill();
    pen.stroke();
    pen.fillStyle = tone.here;
    pen.font = `600 ${tag.length > 2 ? 34 : 46}px "Source Sans 3"`;
    pen.textAlign = "center";
    pen.textBaseline = "middle";
    pen.fillText(tag, middle, middle + 3, PIXELS - 20);
  }
  return markOf(canvas, 8);
}

/** A grid line with its tag in a bubble at both ends, over whatever stands before it. */
export class GridLine implements Layer {
  readonly name = "gridLine";
  readonly root = new Group();
  private readonly line = new LineMaterial({
    color: new Color(tone.here),
    linewidth: 2,
    dashed: true,
    dashSize: 1.2,
    gapSize: 0.4,
    depthTest: false,
    depthWrite: false,
  });
  private shownTag: string | null = null;

  constructor(private readonly changed: () => void) {}

  /** The tag of the line that is shown, or null. */
  get tag(): string | null {
    return this.shownTag;
  }

  show(axis: { tag: string; ends: readonly [Vector3, Vector3] } | null): void {
    this.clear();
    this.shownTag = axis?.tag ?? null;
    if (axis) {
      const [a, b] = axis.ends;
      const line = new Line2(new LineGeometry().setPositions([...a.toArray(), ...b.toArray()]), this.line);
      line.computeLineDistances();
      line.renderOrder = 7;
      line.frustumCulled = false;
      this.root.add(line);
      for (const end of axis.ends) {
        const mark = bubble(axis.tag);
        mark.position.copy(end);
        this.root.add(mark);
      }
    }
    this.changed();
  }

  ready({ pixelM, letters }: Frame): void {
    for (const child of this.root.children)
      if (child instanceof Sprite) child.scale.setScalar(BUBBLE_PX * letters * pixelM);
  }

  private clear(): void {
    for (const child of this.root.children) {
      if (child instanceof Line2) child.geometry.dispose();
      if (child instanceof Sprite) {
        child.material.map?.dispose();
        child.material.dispose();
      }
    }
    this.root.clear();
  }

  dispose(): void {
    this.clear();
    this.line.dispose();
  }
}
