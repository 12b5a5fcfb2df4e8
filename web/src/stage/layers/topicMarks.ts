import { type CanvasTexture, Group, Sprite, SpriteMaterial, type Vector3 } from "three";
import { tone } from "../../style/tone";
import { joined } from "../geometry/onScreen";
import type { Box, Frame, Layer } from "./layer";
import { painted } from "./painted";

const MARK_PX = 24;
/** Marks that come nearer to one another than this are one. */
const JOIN_PX = 26;
const PIXELS = 80;
/** So many are marked; the rest stand in the list. */
const MOST = 400;

/** A topic at its place. */
export interface TopicSign {
  id: string;
  /** What it is called in short: its number, and its variant. */
  called: string;
  at: Vector3;
}

function plate(text: string, several: boolean): CanvasTexture {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = PIXELS;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.fillStyle = several ? tone.ink : tone.paper;
    pen.strokeStyle = several ? tone.paper : tone.ink;
    pen.lineWidth = 5;
    pen.fillRect(5, 5, PIXELS - 10, PIXELS - 10);
    pen.strokeRect(5, 5, PIXELS - 10, PIXELS - 10);
    pen.fillStyle = several ? tone.paper : tone.ink;
    pen.font = `600 ${text.length > 2 ? 30 : 40}px "Source Sans 3"`;
    pen.textAlign = "center";
    pen.textBaseline = "middle";
    pen.fillText(text, PIXELS / 2, PIXELS / 2 + 3);
  }
  return painted(canvas);
}

/** Topics as small numbered plates at their places; those that crowd are one plate with how many they are. */
export class TopicMarks implements Layer {
  readonly name = "topicMarks";
  readonly root = new Group();
  private readonly plates = new Map<string, CanvasTexture>();
  private left = false;
  private markPx = MARK_PX;
  /** What becomes of a click on the plate of some topics. */
  clicked: (ids: readonly string[]) => void = () => undefined;
  private signs: readonly TopicSign[] = [];
  private shown: { group: TopicSign[]; x: number; y: number }[] = [];

  constructor(private readonly changed: () => void) {}

  /** How many plates there are, and how many topics they stand for. */
  get counts(): { plates: number; topics: number } {
    return { plates: this.shown.length, topics: this.signs.length };
  }

  show(signs: readonly TopicSign[]): void {
    if (!signs.length && !this.signs.length) return;
    this.signs = signs.slice(0, MOST);
    while (this.root.children.length < this.signs.length) {
      const material = new SpriteMaterial({ depthTest: false, sizeAttenuation: false, transparent: true });
      const sprite = new Sprite(material);
      sprite.renderOrder = 12.5;
      this.root.add(sprite);
    }
    this.changed();
  }

  private plateOf(text: string, several: boolean): CanvasTexture {
    const key = `${several}/${text}`;
    const known = this.plates.get(key) ?? plate(text, several);
    this.plates.set(key, known);
    return known;
  }

  covers({ view, letters, pixelOf, size }: Omit<Frame, "covered">): readonly Box[] {
    if (view !== "stage") return [];
    if (this.left) {
      this.shown = [];
      return [];
    }
    const seen = this.signs.flatMap((sign) => {
      const { x, y, before } = pixelOf(sign.at);
      return before && x > 0 && y > 0 && x < size.width && y < size.height ? [{ sign, x, y }] : [];
    });
    this.markPx = MARK_PX * letters;
    this.shown = joined(seen, JOIN_PX * letters).map((group) => ({
      group: group.map(({ sign }) => sign),
      x: group[0]?.x ?? 0,
      y: group[0]?.y ?? 0,
    }));
    return this.shown.map(({ x, y }) => ({ x, y, w: this.markPx, h: this.markPx }));
  }

  ready({ view, pixelM }: Frame): void {
    this.root.visible = view === "stage" && this.signs.length > 0 && !this.left;
    if (!this.root.visible) return;
    for (const [k, child] of this.root.children.entries()) {
      const group = this.shown[k]?.group ?? [];
      const [first] = group;
      child.visible = first !== undefined;
      if (!first || !(child instanceof Sprite)) continue;
      const several = group.length > 1;
      child.material.map = this.plateOf(several ? `${group.length}×` : first.called, several);
      child.position.copy(first.at);
      child.scale.setScalar(this.markPx * pixelM);
    }
  }

  leaveOut(left: boolean): void {
    this.left = left;
  }

  click(x: number, y: number): boolean {
    const half = this.markPx / 2 + 1;
    const hit = this.shown.find((each) => Math.abs(each.x - x) < half && Math.abs(each.y - y) < half);
    if (hit) this.clicked(hit.group.map(({ id }) => id));
    return hit !== undefined;
  }

  dispose(): void {
    for (const texture of this.plates.values()) texture.dispose();
    for (const child of this.root.children) if (child instanceof Sprite) child.material.dispose();
  }
}
