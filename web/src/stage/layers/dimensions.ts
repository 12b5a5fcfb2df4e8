import { Color, Group, Sprite, Vector3 } from "three";
import { Line2 } from "three/addons/lines/Line2.js";
import { LineGeometry } from "three/addons/lines/LineGeometry.js";
import { LineMaterial } from "three/addons/lines/LineMaterial.js";
import { tone } from "../../style/tone";
import { LABEL_FONT, LABEL_PX, type Label, label } from "./label";
import type { Box, Frame, Layer } from "./layer";
import { markOf } from "./painted";

const TICK_PX = 20;
const EDGE_PX = 6;
/** Where along its line a label may stand, best first. */
const PLACES = [0.5, 0.42, 0.58, 0.34, 0.66, 0.26, 0.74, 0.18, 0.82, 0.1, 0.9];
/** How many of its own heights a label is moved off its line, where it would lie over another one. */
const OFFSETS = [0, 1.2, -1.2, 2.4, -2.4, 3.6, -3.6, 4.8, -4.8];

/** A measured line with its figure; without one it only leads there. */
export interface Dimension {
  line: readonly Vector3[];
  text: string | null;
  /** The row of it is open on the desk. */
  chosen: boolean;
}

/** The short oblique stroke at the end of a dimension. */
function tick(): Sprite {
  const size = 48;
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = size;
  const pen = canvas.getContext("2d");
  if (pen)
    for (const [colour, width] of [
      [tone.paper, 13],
      [tone.ink, 6],
    ] as const) {
      pen.strokeStyle = colour;
      pen.lineWidth = width;
      pen.beginPath();
      pen.moveTo(8, size - 8);
      pen.lineTo(size - 8, 8);
      pen.stroke();
    }
  return markOf(canvas, 11);
}

function stroke(colour: string, linewidth: number, dashed: boolean): LineMaterial {
  return new LineMaterial({
    color: new Color(colour),
    linewidth,
    dashed,
    dashSize: 0.12,
    gapSize: 0.08,
    depthTest: false,
    depthWrite: false,
    transparent: true,
  });
}

/** A point so far along a line of several, by its length. */
export function pointAlong(line: readonly Vector3[], share: number): Vector3 {
  const lengths = line.slice(1).map((p, i) => p.distanceTo(line[i] ?? p));
  let left = share * lengths.reduce((sum, l) => sum + l, 0);
  for (let i = 0; i < lengths.length; i++) {
    const [a, b, length] = [line[i], line[i + 1], lengths[i] ?? 0];
    if (!a || !b) break;
    if (left <= length || i === lengths.length - 1)
      return a.clone().lerp(b, length ? Math.min(1, left / length) : 0);
    left -= length;
  }
  return line[0]?.clone() ?? new Vector3();
}

/** Where the label of a line may stand, best first: within an outline, else along it. */
function placesOf(line: readonly Vector3[]): Vector3[] {
  const [first] = line;
  const last = line.at(-1);
  const along = PLACES.map((share) => pointAlong(line, share));
  if (line.length < 4 || !first || !last || first.distanceTo(last) > 1e-6) return along;
  const middle = along.reduce((sum, p) => sum.add(p), new Vector3()).divideScalar(along.length);
  return [middle, ...along];
}

/** Where a label goes in a view: on its line where it is seen, beside it where another label lies there already. */
export function placeOf(
  candidates: readonly { x: number; y: number; before: boolean }[],
  size: { w: number; h: number },
  view: { width: number; height: number },
  taken: readonly Box[],
): { at: number; off: number } | null {
  const fits = ({ x, y, before }: (typeof candidates)[number]) =>
    before &&
    x > size.w / 2 + EDGE_PX &&
    x < view.width - size.w / 2 - EDGE_PX &&
    y > size.h / 2 + EDGE_PX &&
    y < view.height - size.h / 2 - EDGE_PX;
  const seen = candidates.map(fits);
  for (const off of OFFSETS)
    for (const [at, candidate] of candidates.entries()) {
      if (!seen[at]) continue;
      const y = candidate.y - off * size.h;
      const free = taken.every(
        (box) =>
          Math.abs(box.x - candidate.x) * 2 >= box.w + size.w || Math.abs(box.y - y) * 2 >= box.h + size.h,
      );
      if (free) return { at, off };
    }
  const at = seen.indexOf(true);
  return at < 0 ? null : { at, off: 0 };
}

/** What was measured: lines with their figures, over whatever stands before them. */
export class Dimensions implements Layer {
  readonly name = "dimensions";
  readonly root = new Group();
  private readonly halo = stroke(tone.paper, 5, false);
  private readonly firm = stroke(tone.ink, 2, false);
  private readonly here = stroke(tone.here, 2.6, false);
  private readonly thin = stroke(tone.ink, 1.2, true);
  private readonly kept = new Group();
  private readonly live = new Group();
  private labels: { line: readonly Vector3[]; sprite: Label; live: boolean }[] = [];
  private shown: readonly Dimension[] = [];
  /** What lies over the stage, which labels keep clear of: boxes in its pixels, by their middles. */
  over: () => readonly Box[] = () => [];

  constructor(private readonly changed: () => void) {
    this.root.add(this.kept, this.live);
    // What was painted before the letters were there is painted again.
    void document.fonts?.load(LABEL_FONT).then(() => this.show(this.shown));
  }

  /** Draw what was measured in place of what was drawn before. */
  show(dimensions: readonly Dimension[]): void {
    this.shown = dimensions;
    this.clear(this.kept, false);
    for (const each of dimensions) this.add(this.kept, each, false);
    this.changed();
  }

  /** Draw what is being measured, or put it away. */
  showLive(dimensions: readonly Dimension[]): void {
    if (!dimensions.length && !this.live.children.length) return;
    this.clear(this.live, true);
    for (const each of dimensions) this.add(this.live, each, true);
    this.changed();
  }

  /** The figures that are drawn, as they are read. */
  get texts(): readonly string[] {
    return this.shown.flatMap((each) => each.text ?? []);
  }

  private add(into: Group, { line, text, chosen }: Dimension, live: boolean): void {
    if (line.length < 2) return;
    const positions = line.flatMap((p) => p.toArray());
    const materials = text === null ? [this.thin] : [this.halo, chosen ? this.here : this.firm];
    materials.forEach((material, k) => {
      const drawn = new Line2(new LineGeometry().setPositions(positions), material);
      drawn.computeLineDistances();
      drawn.renderOrder = 9 + k;
      drawn.frustumCulled = false;
      into.add(drawn);
    });
    if (text === null) return;
    if (line.length === 2)
      for (const end of line) {
        const mark = tick();
        mark.position.copy(end);
        into.add(mark);
      }
    const sprite = label(text, chosen ? tone.here : tone.ink);
    into.add(sprite);
    this.labels.push({ line, sprite, live });
  }

  ready({ view, pixelM, letters, pixelOf, size, covered }: Frame): void {
    this.root.visible = view === "stage";
    if (!this.root.visible) return;
    for (const group of [this.kept, this.live])
      for (const child of group.children)
        if (child instanceof Sprite) child.scale.setScalar(TICK_PX * pixelM);
    if (!this.labels.length) return;
    const taken: Box[] = [...this.over(), ...covered];
    for (const { line, sprite } of this.labels) {
      const h = LABEL_PX * letters;
      const w = h * sprite.aspect;
      const points = placesOf(line);
      const pixels = points.map(pixelOf);
      const place = placeOf(pixels, { w, h }, size, taken);
      sprite.visible = place !== null;
      if (!place) continue;
      const [point, pixel] = [points[place.at], pixels[place.at]];
      if (!point || !pixel) continue;
      taken.push({ x: pixel.x, y: pixel.y - place.off * h, w, h });
      sprite.position.copy(point);
      sprite.center.set(0.5, 0.5 - place.off);
      sprite.scale.set(w * pixelM, h * pixelM, 1);
    }
  }

  private clear(group: Group, live: boolean): void {
    for (const child of group.children) {
      if (child instanceof Line2) child.geometry.dispose();
      if (child instanceof Sprite) {
        child.material.map?.dispose();
        child.material.dispose();
      }
    }
    group.clear();
    this.labels = this.labels.filter((each) => each.live !== live);
  }

  dispose(): void {
    this.clear(this.kept, false);
    this.clear(this.live, true);
    for (const material of [this.halo, this.firm, this.here, this.thin]) material.dispose();
  }
}
