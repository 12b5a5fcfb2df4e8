import {
  Color,
  DoubleSide,
  Group,
  Mesh,
  MeshBasicMaterial,
  Shape,
  ShapeGeometry,
  Sprite,
  Vector2,
  Vector3,
} from "three";
import { Line2 } from "three/addons/lines/Line2.js";
import { LineGeometry } from "three/addons/lines/LineGeometry.js";
import { LineMaterial } from "three/addons/lines/LineMaterial.js";
import { tone } from "../../style/tone";
import { fromSegment } from "../geometry/onScreen";
import type { Gesture } from "../gesture";
import { LABEL_FONT, LABEL_PX, type Label, label, wrapped } from "./label";
import type { Frame, Layer } from "./layer";
import { markOf } from "./painted";

const LETTERS = 34;
const CATCH_PX = 9;
const PIN_PX = 26;
const HANDLE_PX = 12;
const FILLED = 0.16;
const HALO_PX = 2.4;

/** A markup as it is drawn: its lines about the origin, where its text stands, and from where it is read. */
export interface MarkupSign {
  id: string;
  strokes: readonly { points: readonly Vector3[]; closed: boolean }[];
  /** Where it can be taken hold of, and which of these its words are. */
  handles: readonly Vector3[];
  textHandle: number | null;
  at: Vector3;
  textAt: Vector3;
  textM: number;
  normal: Vector3;
  coneDeg: number;
  leastM: number;
  mostM: number;
  colour: string;
  widthPx: number;
  fill: boolean;
  text: string;
}

/** What of the markups is somewhere on the screen: one of them, one of its handles, or the pin of one that is not read. */
export interface MarkupHit {
  id: string;
  handle: number | null;
  pin: boolean;
}

interface Piece {
  sign: MarkupSign;
  group: Group;
  text: Label | null;
  pin: Sprite;
  read: boolean;
}

/** Whether a markup can be read: about square on, and neither too small nor too large. */
export function isRead(
  sign: Pick<MarkupSign, "at" | "normal" | "coneDeg" | "leastM" | "mostM">,
  frame: Frame,
): boolean {
  const { pose, pixelM, size } = frame;
  const flat = pose.projection === "parallel";
  const sight = flat ? pose.target.clone().sub(pose.eye) : sign.at.clone().sub(pose.eye);
  const away = sight.length();
  if (away === 0 || -sight.dot(sign.normal) / away < Math.cos((sign.coneDeg * Math.PI) / 180)) return false;
  const heightM = pixelM * (flat ? 1 : away) * size.height;
  return heightM >= sign.leastM && heightM <= sign.mostM;
}

function pin(colour: string): Sprite {
  const size = 72;
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = size;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.translate(size / 2, 0);
    pen.beginPath();
    pen.arc(0, 26, 20, Math.PI * 0.85, Math.PI * 0.15);
    pen.lineTo(0, size - 4);
    pen.closePath();
    pen.fillStyle = tone.paper;
    pen.fill();
    pen.lineWidth = 6;
    pen.strokeStyle = colour;
    pen.stroke();
    pen.beginPath();
    pen.arc(0, 26, 7, 0, Math.PI * 2);
    pen.fillStyle = colour;
    pen.fill();
  }
  const mark = markOf(canvas, 15);
  mark.center.set(0.5, 0.05);
  return mark;
}

function handle(): Sprite {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = 36;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.fillStyle = tone.paper;
    pen.strokeStyle = tone.ink;
    pen.lineWidth = 5;
    pen.fillRect(4, 4, 28, 28);
    pen.strokeRect(4, 4, 28, 28);
  }
  return markOf(canvas, 17);
}

function line(points: readonly Vector3[], colour: string, widthPx: number, opacity: number): Line2 {
  const material = new LineMaterial({
    color: new Color(colour),
    linewidth: widthPx,
    depthTest: false,
    depthWrite: false,
    transparent: true,
    opacity,
  });
  const drawn = new Line2(new LineGeometry().setPositions(points.flatMap((p) => p.toArray())), material);
  drawn.frustumCulled = false;
  return drawn;
}

/** The inside of a closed line, in its plane. */
function inside(points: readonly Vector3[], normal: Vector3, colour: string): Mesh {
  const [first = new Vector3(), next = first] = points;
  const along = next.clone().sub(first).normalize();
  const across = normal.clone().cross(along);
  const flat = points.map((p) => {
    const d = p.clone().sub(first);
    return new Vector2(d.dot(along), d.dot(across));
  });
  const material = new MeshBasicMaterial({
    color: new Color(colour),
    transparent: true,
    opacity: FILLED,
    side: DoubleSide,
    depthTest: false,
    depthWrite: false,
  });
  const mesh = new Mesh(new ShapeGeometry(new Shape(flat)), material);
  mesh.matrixAutoUpdate = false;
  mesh.matrix.makeBasis(along, across, normal).setPosition(first);
  mesh.frustumCulled = false;
  return mesh;
}

function freed(group: Group): void {
  for (const child of [...group.children]) {
    if (child instanceof Group) freed(child);
    else if (child instanceof Sprite) {
      child.material.map?.dispose();
      child.material.dispose();
    } else if (child instanceof Mesh) {
      child.geometry.dispose();
      if (child.material instanceof LineMaterial || child.material instanceof MeshBasicMaterial)
        child.material.dispose();
    }
  }
  group.clear();
}

/** What was drawn over the view by hand, in its place in the model; a pin where it cannot be read. */
export class Markups implements Layer {
  readonly name = "markups";
  /** What becomes of a click on a markup, and of a drag; null where the markup stays. */
  clicked: (hit: MarkupHit) => void = () => undefined;
  gripped: (hit: MarkupHit) => Gesture | null = () => null;
  readonly root = new Group();
  private readonly kept = new Group();
  private readonly live = new Group();
  private readonly grips = new Group();
  private pieces: Piece[] = [];
  private shown: readonly MarkupSign[] = [];
  private chosen: string | null = null;
  private frame: Frame | null = null;

  constructor(private readonly changed: () => void) {
    this.root.add(this.kept, this.live, this.grips);
    // What was painted before the letters were there is painted again.
    void document.fonts?.load(LABEL_FONT).then(() => this.show(this.shown, this.chosen));
  }

  /** Draw markups in place of those before; one of them may be chosen. */
  show(signs: readonly MarkupSign[], chosen: string | null): void {
    if (!signs.length && !this.shown.length) return;
    this.shown = signs;
    this.chosen = chosen;
    freed(this.kept);
    freed(this.grips);
    this.pieces = signs.map((sign) => this.piece(sign));
    const held = signs.find(({ id }) => id === chosen);
    for (const [k, at] of (held?.handles ?? []).entries()) {
      const grip = handle();
      grip.position.copy(at);
      grip.visible = k !== held?.textHandle;
      this.grips.add(grip);
    }
    this.changed();
  }

  /** Draw what a hand is drawing, or nothing. */
  showLive(points: readonly Vector3[], colour: string, widthPx: number): void {
    if (points.length < 2 && !this.live.children.length) return;
    freed(this.live);
    if (points.length > 1) {
      const drawn = line(points, colour, widthPx, 0.9);
      drawn.renderOrder = 13;
      this.live.add(drawn);
    }
    this.changed();
  }

  /** How many are drawn as what they are, and how many as pins. */
  get counts(): { read: number; pins: number } {
    const read = this.pieces.filter((piece) => piece.read).length;
    return { read, pins: this.pieces.length - read };
  }

  /** Where each can be taken hold of, and how many are filled. */
  get places(): number[][][] {
    return this.shown.map(({ handles }) => handles.map((at) => at.toArray()));
  }

  get filled(): number {
    return this.shown.filter(({ fill }) => fill).length;
  }

  private piece(sign: MarkupSign): Piece {
    const group = new Group();
    const thick = sign.id === this.chosen ? sign.widthPx + 1.5 : sign.widthPx;
    for (const { points, closed } of sign.strokes) {
      if (points.length < 2) continue;
      if (closed && sign.fill) group.add(inside(points, sign.normal, sign.colour));
      // Told from what is behind it, and soft as a pencil: two strokes of one line.
      for (const [colour, width, opacity] of [
        [tone.paper, thick + HALO_PX, 0.7],
        [sign.colour, thick, 0.82],
        [sign.colour, thick * 0.55, 0.55],
      ] as const)
        group.add(line(points, colour, width, opacity));
    }
    for (const [k, child] of group.children.entries()) child.renderOrder = 11 + k / 100;
    const text = sign.text ? label(wrapped(sign.text, LETTERS), sign.colour) : null;
    if (text) {
      text.position.copy(sign.textAt);
      group.add(text);
    }
    const mark = pin(sign.colour);
    mark.position.copy(sign.at);
    this.kept.add(group, mark);
    return { sign, group, text, pin: mark, read: true };
  }

  ready(frame: Frame): void {
    this.root.visible = frame.view === "stage";
    if (!this.root.visible) return;
    this.frame = frame;
    const { pixelM } = frame;
    for (const piece of this.pieces) {
      const { sign, group, text, pin: mark } = piece;
      piece.read = isRead(sign, frame);
      group.visible = piece.read;
      mark.visible = !piece.read;
      mark.scale.setScalar(PIN_PX * pixelM);
      if (text) {
        const heightPx = this.textPx(sign, text, frame);
        text.scale.set(heightPx * text.aspect * pixelM, heightPx * pixelM, 1);
      }
    }
    this.grips.visible = this.pieces.some(({ sign, read }) => sign.id === this.chosen && read);
    for (const grip of this.grips.children) grip.scale.setScalar(HANDLE_PX * pixelM);
  }

  private textPx(sign: MarkupSign, text: Label, { pose, pixelM }: Frame): number {
    const away = pose.projection === "parallel" ? 1 : Math.max(1e-6, sign.textAt.distanceTo(pose.eye));
    const linePx = Math.max(LABEL_PX * 0.5, sign.textM / (pixelM * away));
    return linePx * text.lines;
  }

  click(x: number, y: number): boolean {
    const hit = this.at(x, y);
    if (hit) this.clicked(hit);
    return hit !== null;
  }

  grip(x: number, y: number): Gesture | null {
    const hit = this.at(x, y);
    return hit && this.gripped(hit);
  }

  /** What of the markups is at a place in pixels of the view, the last one drawn first. */
  private at(x: number, y: number): MarkupHit | null {
    const frame = this.frame;
    if (!frame) return null;
    if (this.grips.visible)
      for (const [k, grip] of this.grips.children.entries()) {
        const p = frame.pixelOf(grip.position);
        if (grip.visible && p.before && this.chosen && Math.hypot(p.x - x, p.y - y) <= HANDLE_PX)
          return { id: this.chosen, handle: k, pin: false };
      }
    for (const piece of [...this.pieces].reverse()) {
      const { sign, read } = piece;
      if (read && this.inText(piece, x, y, frame))
        return { id: sign.id, handle: sign.textHandle, pin: false };
      if (this.meets(piece, x, y, frame)) return { id: sign.id, handle: null, pin: !read };
    }
    return null;
  }

  private inText({ sign, text }: Piece, x: number, y: number, frame: Frame): boolean {
    if (!text) return false;
    const p = frame.pixelOf(sign.textAt);
    const heightPx = this.textPx(sign, text, frame);
    return p.before && Math.abs(p.x - x) < (heightPx * text.aspect) / 2 && Math.abs(p.y - y) < heightPx / 2;
  }

  private meets({ sign, read }: Piece, x: number, y: number, frame: Frame): boolean {
    if (!read) {
      const p = frame.pixelOf(sign.at);
      return p.before && Math.abs(p.x - x) < PIN_PX / 2 && y < p.y + 3 && y > p.y - PIN_PX;
    }
    return sign.strokes.some(({ points }) => {
      const px = points.map(frame.pixelOf);
      return px.some((a, k) => {
        const b = px[k + 1];
        return b !== undefined && a.before && b.before && fromSegment({ x, y }, a, b) <= CATCH_PX;
      });
    });
  }

  dispose(): void {
    for (const group of [this.kept, this.live, this.grips]) freed(group);
  }
}
