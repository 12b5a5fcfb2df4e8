import { CanvasTexture, Sprite, SpriteMaterial, SRGBColorSpace } from "three";

/** A canvas as a texture in the very colours that it was painted in. */
export function painted(canvas: HTMLCanvasElement): CanvasTexture {
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  return texture;
}

/** A painted mark that stands before everything, as large at any distance; those of a higher order stand before others. */
export function markOf(canvas: HTMLCanvasElement, order: number): Sprite {
  const mark = new Sprite(
    new SpriteMaterial({ map: painted(canvas), depthTest: false, sizeAttenuation: false, transparent: true }),
  );
  mark.renderOrder = order;
  return mark;
}
