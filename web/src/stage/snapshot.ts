import type { Rectangle } from "./view";

/** A part of a canvas, in CSS pixels at a ratio, as a picture at most so wide. */
export function snapshot(
  canvas: HTMLCanvasElement,
  ratio: number,
  { x, y, width, height }: Rectangle,
  mostPx: number,
  type: "image/png" | "image/jpeg",
): string {
  const [across, down] = [width * ratio, height * ratio];
  const small = document.createElement("canvas");
  small.width = Math.min(mostPx, Math.round(across));
  small.height = Math.round((down / across) * small.width);
  const pen = small.getContext("2d");
  if (pen) {
    pen.imageSmoothingQuality = "high";
    const from = [x * ratio, y * ratio, across, down] as const;
    pen.drawImage(canvas, ...from, 0, 0, small.width, small.height);
  }
  return small.toDataURL(type, 0.7);
}
