import { CanvasTexture, Sprite, SpriteMaterial, type Vector3 } from "three";

function ring(): CanvasTexture {
  const size = 64;
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = size;
  const pen = canvas.getContext("2d");
  if (pen) {
    for (const [colour, width] of [
      ["#faf8f4", 9],
      ["#0e7c86", 5],
    ] as const) {
      pen.strokeStyle = colour;
      pen.lineWidth = width;
      pen.beginPath();
      pen.arc(size / 2, size / 2, size / 2 - 8, 0, Math.PI * 2);
      pen.stroke();
    }
    pen.fillStyle = "#0e7c86";
    pen.beginPath();
    pen.arc(size / 2, size / 2, 5, 0, Math.PI * 2);
    pen.fill();
  }
  return new CanvasTexture(canvas);
}

/** The mark at the point that the view turns about, the same size at any distance. */
export class PivotMark {
  readonly sprite: Sprite;

  constructor() {
    this.sprite = new Sprite(
      new SpriteMaterial({ map: ring(), depthTest: false, sizeAttenuation: false, transparent: true }),
    );
    this.sprite.renderOrder = 10;
    this.sprite.visible = false;
  }

  show(at: Vector3 | null, scale: number): void {
    this.sprite.visible = at !== null;
    if (at) this.sprite.position.copy(at);
    this.sprite.scale.setScalar(scale);
  }
}
