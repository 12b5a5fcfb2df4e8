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
  readonly root = new Group();
  private readonly dot = dot();
  private name: Label | null = null;
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
      if (name !== this.called || !this.name) this.call(name);
      this.dot.position.copy(at);
      this.name?.position.copy(at);
    }
    this.changed();
  }

  private call(name: string): void {
    this.forget();
    this.called = name;
    this.name = label(name, tone.plum);
    this.name.center.set(0, 1.6);
    this.root.add(this.name);
  }

  private forget(): void {
    if (!this.name) return;
    this.root.remove(this.name);
    this.name.material.map?.dispose();
    this.name.material.dispose();
  }

  ready({ pixelM }: Frame): void {
    this.dot.scale.setScalar(DOT_PX * pixelM);
    this.name?.scale.set(LABEL_PX * this.name.aspect * pixelM, LABEL_PX * pixelM, 1);
  }

  dispose(): void {
    this.forget();
    this.dot.material.map?.dispose();
    this.dot.material.dispose();
  }
}
