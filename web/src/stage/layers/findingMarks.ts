import { Group, Sprite, type Vector3 } from "three";
import { tone } from "../../style/tone";
import type { Box, Frame, Layer } from "./layer";
import { markOf } from "./painted";

const PIXELS = 96;
const MARK_PX = 26;
/** So many are circled; the rest stand in the list. */
const MOST = 300;

/** A circle in the pick colour with its number; filled for the one that is looked at. */
function circled(number: number, chosen: boolean): Sprite {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = PIXELS;
  const pen = canvas.getContext("2d");
  if (pen) {
    const middle = PIXELS / 2;
    pen.beginPath();
    pen.arc(middle, middle, middle - 8, 0, Math.PI * 2);
    pen.fillStyle = chosen ? tone.pick : tone.paper;
    pen.fill();
    pen.lineWidth = 8;
    pen.strokeStyle = chosen ? tone.ink : tone.pick;
    pen.stroke();
    pen.fillStyle = tone.ink;
    pen.font = `600 ${number > 99 ? 34 : 44}px "Source Sans 3"`;
    pen.textAlign = "center";
    pen.textBaseline = "middle";
    pen.fillText(String(number), middle, middle + 3);
  }
  return markOf(canvas, chosen ? 14 : 13);
}

/** Where components overlap or come too near. */
export class FindingMarks implements Layer {
  readonly name = "findings";
  readonly root = new Group();

  constructor(private readonly changed: () => void) {}

  /** How many are circled. */
  get count(): number {
    return this.root.children.length;
  }

  /** Circle places in their order; one of them may be looked at. */
  show(places: readonly Vector3[], chosen: number | null): void {
    if (!places.length && !this.count) return;
    this.clear();
    places.forEach((place, k) => {
      if (k >= MOST && k !== chosen) return;
      const mark = circled(k + 1, k === chosen);
      mark.position.copy(place);
      this.root.add(mark);
    });
    this.changed();
  }

  covers({ view, letters, pixelOf }: Omit<Frame, "covered">): readonly Box[] {
    if (view !== "stage") return [];
    const [w, h] = [MARK_PX * letters, MARK_PX * letters];
    return this.root.children.flatMap(({ position }) => {
      const { x, y, before } = pixelOf(position);
      return before ? [{ x, y, w, h }] : [];
    });
  }

  ready({ view, pixelM, letters }: Frame): void {
    this.root.visible = view === "stage";
    for (const child of this.root.children) child.scale.setScalar(MARK_PX * letters * pixelM);
  }

  private clear(): void {
    for (const child of this.root.children)
      if (child instanceof Sprite) {
        child.material.map?.dispose();
        child.material.dispose();
      }
    this.root.clear();
  }

  dispose(): void {
    this.clear();
  }
}
