import { DataTexture, NearestFilter, RGBAFormat, UnsignedByteType } from "three";

export type State = "shown" | "faded" | "hidden";

/** What red says, by the byte that the core gives for a state: hidden, faded, shown. */
const LEVEL = [0, 128, 255] as const;
const WIDTH = 1024;

/**
 * One texel per component: red says shown, faded or hidden; green 255 picked, 128 under the cursor; blue
 * 255 what no cut goes through.
 * Changing what is visible changes texels and no geometry.
 */
export class StateTable {
  private data: Uint8Array<ArrayBuffer>;
  texture: DataTexture;
  private count = 0;
  private readonly picked = new Set<number>();
  private whole: ReadonlySet<number> = new Set();
  /** What is under the cursor; -1 for nothing. */
  hovered = -1;
  changes = 0;

  constructor() {
    this.data = new Uint8Array(WIDTH * 4);
    this.texture = StateTable.make(this.data);
  }

  private static make(data: Uint8Array<ArrayBuffer>): DataTexture {
    const texture = new DataTexture(data, WIDTH, data.length / 4 / WIDTH, RGBAFormat, UnsignedByteType);
    texture.minFilter = NearestFilter;
    texture.magFilter = NearestFilter;
    texture.needsUpdate = true;
    return texture;
  }

  /** Make room for a federation; returns whether the texture is a new one. */
  resize(count: number): void {
    this.count = count;
    const rows = Math.max(1, Math.ceil(count / WIDTH));
    this.texture.dispose();
    this.data = new Uint8Array(WIDTH * rows * 4);
    this.texture = StateTable.make(this.data);
    this.picked.clear();
    this.whole = new Set();
    this.hovered = -1;
  }

  /** Say which components no cut goes through. */
  setWhole(components: ReadonlySet<number>): void {
    for (const i of this.whole) this.data[i * 4 + 2] = 0;
    for (const i of components) this.data[i * 4 + 2] = 255;
    this.whole = components;
    this.touch();
  }

  setVisible(states: Uint8Array): void {
    for (let i = 0; i < this.count; i++) this.data[i * 4] = LEVEL[states[i] ?? 0] ?? 0;
    this.touch();
  }

  isVisible(component: number): boolean {
    return (this.data[component * 4] ?? 0) > 0;
  }

  /** Only shown components can be pointed at; a faded one does not stand in the way. */
  isSolid(component: number): boolean {
    return this.data[component * 4] === LEVEL[2];
  }

  get anyFaded(): boolean {
    for (let i = 0; i < this.count; i++) if (this.data[i * 4] === LEVEL[1]) return true;
    return false;
  }

  setPicked(components: readonly number[]): void {
    for (const i of this.picked) this.data[i * 4 + 1] = i === this.hovered ? 128 : 0;
    this.picked.clear();
    for (const i of components) {
      this.picked.add(i);
      this.data[i * 4 + 1] = 255;
    }
    this.touch();
  }

  setHovered(component: number): boolean {
    if (component === this.hovered) return false;
    if (this.hovered >= 0) this.data[this.hovered * 4 + 1] = this.picked.has(this.hovered) ? 255 : 0;
    this.hovered = component;
    if (component >= 0 && !this.picked.has(component)) this.data[component * 4 + 1] = 128;
    this.touch();
    return true;
  }

  private touch(): void {
    this.texture.needsUpdate = true;
    this.changes++;
  }
}

/** The tint of what is drawn in the file's own colours. */
export const BY_MATERIALS = -2;
/** In alpha beside the number of the hatch: the vertices say the colour. */
const OF_FILE = 128;
/** What a file gives no colour. */
const BARE = 0xccc7bd;

/**
 * A texel per component with the colour that the core gave it, or its tint (0xRRGGBB, -1 for none, BY_MATERIALS), and in
 * alpha the number of the hatch that its cut faces have. `paintOf` is the file's own colour of most of a component.
 */
export function colourTexture(
  colours: readonly string[],
  perComponent: readonly number[],
  tints: Int32Array | null = null,
  hatches: readonly number[] = [],
  paintOf: (component: number) => number | undefined = () => undefined,
): DataTexture {
  const rows = Math.max(1, Math.ceil(perComponent.length / WIDTH));
  const data = new Uint8Array(WIDTH * rows * 4);
  const own = colours.map((c) => Number.parseInt(c.slice(1), 16));
  perComponent.forEach((index, i) => {
    const tint = tints?.[i] ?? -1;
    const hatch = hatches[i] ?? 0;
    const ofFile = tint === BY_MATERIALS;
    const rgb = ofFile ? (paintOf(i) ?? BARE) : tint < 0 ? (own[index] ?? 0x808080) : tint;
    data.set([rgb >> 16, (rgb >> 8) & 255, rgb & 255, ofFile ? hatch + OF_FILE : hatch], i * 4);
  });
  const texture = new DataTexture(data, WIDTH, rows, RGBAFormat, UnsignedByteType);
  texture.minFilter = NearestFilter;
  texture.magFilter = NearestFilter;
  texture.needsUpdate = true;
  return texture;
}
