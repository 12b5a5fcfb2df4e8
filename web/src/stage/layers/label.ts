import type { Sprite } from "three";
import { tone } from "../../tone";
import { markOf } from "./painted";

const HEIGHT = 64;
const PAD = 20;
export const LABEL_FONT = '600 46px "Barlow Semi Condensed", sans-serif';
/** So high a label is on the screen. */
export const LABEL_PX = 22;

/** A label, and how many times as wide as high it is. */
export type Label = Sprite & { aspect: number };

let ruler: CanvasRenderingContext2D | null = null;

function widthOf(text: string): number {
  ruler ??= document.createElement("canvas").getContext("2d");
  if (!ruler) return text.length * 24;
  ruler.font = LABEL_FONT;
  return ruler.measureText(text).width;
}

/** A few words on paper that stand before everything, as large at any distance; as wide as high times its aspect. */
export function label(text: string, colour: string = tone.ink): Label {
  const canvas = document.createElement("canvas");
  canvas.width = Math.ceil(widthOf(text) + 2 * PAD);
  canvas.height = HEIGHT;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.fillStyle = tone.paper;
    pen.fillRect(0, 0, canvas.width, HEIGHT);
    pen.strokeStyle = colour;
    pen.lineWidth = 4;
    pen.strokeRect(2, 2, canvas.width - 4, HEIGHT - 4);
    pen.fillStyle = tone.ink;
    pen.font = LABEL_FONT;
    pen.textBaseline = "middle";
    pen.fillText(text, PAD, HEIGHT / 2 + 2);
  }
  const sprite = markOf(canvas, 12);
  return Object.assign(sprite, { aspect: canvas.width / HEIGHT });
}
