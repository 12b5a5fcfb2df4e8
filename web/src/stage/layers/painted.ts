import { CanvasTexture, SRGBColorSpace } from "three";

/** A canvas as a texture in the very colours that it was painted in. */
export function painted(canvas: HTMLCanvasElement): CanvasTexture {
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  return texture;
}
