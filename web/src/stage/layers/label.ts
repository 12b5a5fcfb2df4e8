import type { Sprite } from "three";
import { tone } from "../../style/tone";
import { markOf } from "./painted";

const LINE = 64;
const NEXT_LINE = 54;
const PAD = 20;
export const LABEL_FONT = '600 46px "Source Sans 3", sans-serif';
/** So high a label of one line is on the screen. */
export const LABEL_PX = 22;

/** A label, how many times as wide as high it is, and how many times as high as one of a single line. */
export type Label = Sprite & { aspect: number; lines: number };

let ruler: CanvasRenderingContext2D | null = null;

function widthOf(text: string): number {
  ruler ??= document.createElement("canvas").getContext("2d");
  if (!ruler) return text.length * 24;
  ruler.font = LABEL_FONT;
  return ruler.measureText(text).width;
}

/** A few words on paper that stand before everything, as large at any distance; as wide as high times its aspect. */
export function label(text: string, colour: string = tone.ink): Label {
  const lines = text.split("\n");
  const canvas = document.createElement("canvas");
  canvas.width = Math.ceil(Math.max(...lines.map(widthOf)) + 2 * PAD);
  canvas.height = LINE + (lines.length - 1) * NEXT_LINE;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.fillStyle = tone.paper;
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.strokeStyle = colour;
    pen.lineWidth = 4;
    pen.strokeRect(2, 2, canvas.width - 4, canvas.height - 4);
    pen.fillStyle = tone.ink;
    pen.font = LABEL_FONT;
    pen.textBaseline = "middle";
    for (const [k, line] of lines.entries()) pen.fillText(line, PAD, LINE / 2 + 2 + k * NEXT_LINE);
  }
  const sprite = markOf(canvas, 12);
  return Object.assign(sprite, { aspect: canvas.width / canvas.height, lines: canvas.height / LINE });
}

/** A text in lines of about so many letters; its own line ends stay. */
export function wrapped(text: string, letters: number): string {
  const lines: string[] = [];
  for (const own of text.split("\n")) {
    let line = "";
    for (const word of own.split(" ")) {
      if (line && line.length + 1 + word.length > letters) {
        lines.push(line);
        line = word;
      } else line = line ? `${line} ${word}` : word;
    }
    lines.push(line);
  }
  return lines.join("\n");
}
