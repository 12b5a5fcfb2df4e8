import { Group, type Sprite, type Vector3 } from "three";
import { tone } from "../../style/tone";
import { LABEL_PX, type Label, label } from "./label";
import type { Frame, Layer } from "./layer";
import { markOf } from "./painted";

const DOT_PX = 18;

function dot(): Sprite {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = 48;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.beginPath();
    pen.arc(24, 24, 17, 0, Math.PI * 2);
    pen.fillStyle = tone.plum;
    pen.fill();
    pen.lineWidth = 6;
    pen.strokeStyle = tone.paper;
    pen.stroke();
  }
  return markOf(canvas, 18);
}

/** Where somebody else points, with their name. */
export class Pointer implements Layer {
  readonly name = "pointer";
  readonly root = new Group();
  private readonly dot = dot();
  private plate: Label | null = null;
  private called = "";

  constructor(private readonly changed: () => void) {
    this.root.visible = false;
    this.root.add(this.dot);
  }

  /** Point at a place, or nowhere. */
  show(at: Vector3 | null, name: string): void {
    if (!at && !this.root.visible) return;
    this.root.visible = at !== null;
    if (at) {
      if (name !== this.called || !this.plate) this.call(name);
      this.dot.position.copy(at);
      this.plate?.position.copy(at);
    }
    this.changed();
  }

  private call(name: string): void {
    this.forget();
    this.called = name;
    this.plate = label(name, tone.plum);
    this.plate.center.set(0, 1.6);
    this.root.add(this.plate);
  }

  private forget(): void {
    if (!this.plate) return;
    this.root.remove(this.plate);
    this.plate.material.map?.dispose();
    this.plate.material.dispose();
  }

  ready({ pixelM, letters }: Frame): void {
    this.dot.scale.setScalar(DOT_PX * pixelM);
    const highM = LABEL_PX * letters * pixelM;
    this.plate?.scale.set(highM * this.plate.aspect, highM, 1);
  }

  dispose(): void {
    this.forget();
    this.dot.material.map?.dispose();
    this.dot.material.dispose();
  }
}
