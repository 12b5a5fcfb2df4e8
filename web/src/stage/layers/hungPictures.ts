import {
  DoubleSide,
  Group,
  Mesh,
  MeshBasicMaterial,
  PlaneGeometry,
  SRGBColorSpace,
  type Texture,
  TextureLoader,
  type Vector3,
} from "three";
import type { Layer } from "./layer";

/** A picture that stands in the model about its middle: where to fetch it, its place, which way it looks, and how high it is. */
export interface HungPicture {
  address: string;
  at: Vector3;
  normal: Vector3;
  up: Vector3;
  heightM: number;
}

/** Pictures that stand in the model, as other programs put them into their views. */
export class HungPictures implements Layer {
  readonly name = "hung";
  readonly root = new Group();
  private readonly known = new Map<string, Texture>();
  private shown: readonly HungPicture[] = [];

  constructor(private readonly changed: () => void) {}

  /** How many stand there. */
  get count(): number {
    return this.root.children.length;
  }

  show(pictures: readonly HungPicture[]): void {
    if (!pictures.length && !this.shown.length) return;
    this.shown = pictures;
    this.hang();
    for (const { address } of pictures) {
      if (this.known.has(address)) continue;
      // One that cannot be fetched is left out; the server says which are there.
      new TextureLoader().load(address, (texture) => {
        texture.colorSpace = SRGBColorSpace;
        this.known.set(address, texture);
        this.hang();
      });
    }
  }

  private hang(): void {
    this.clear();
    for (const picture of this.shown) {
      const texture = this.known.get(picture.address);
      if (!texture) continue;
      const { width, height } = texture.image as { width: number; height: number };
      const high = picture.heightM;
      const geometry = new PlaneGeometry((high * width) / Math.max(1, height), high);
      const mesh = new Mesh(
        geometry,
        new MeshBasicMaterial({ map: texture, side: DoubleSide, transparent: true }),
      );
      mesh.position.copy(picture.at);
      mesh.up.copy(picture.up);
      // A plane looks along +Z, and so does what is told to look at something.
      mesh.lookAt(picture.at.clone().add(picture.normal));
      mesh.renderOrder = 4;
      mesh.updateMatrixWorld(true);
      this.root.add(mesh);
    }
    this.changed();
  }

  private clear(): void {
    for (const child of [...this.root.children]) {
      if (child instanceof Mesh) {
        child.geometry.dispose();
        child.material.dispose();
      }
      this.root.remove(child);
    }
  }

  dispose(): void {
    this.clear();
    for (const texture of this.known.values()) texture.dispose();
  }
}
