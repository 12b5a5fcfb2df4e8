import { type Box3, type BufferGeometry, type IUniform, type Matrix4, Vector3 } from "three";

/** Triangles or lines with a place: each vertex says the number of its component within the model. */
export interface Part {
  readonly geometry: BufferGeometry;
  readonly matrixWorld: Matrix4;
}

/** A piece of a model as picking and snapping know it. */
export interface Piece {
  readonly bounds: Box3;
  /** The dense number of the model's first component. */
  readonly first: IUniform<number>;
  readonly faces: readonly Part[];
  readonly lines: readonly Part[];
}

/** The edges of a component, from one end to the other. */
export function* edgesOf(pieces: Iterable<Piece>, component: number): Generator<[Vector3, Vector3]> {
  for (const piece of pieces) {
    for (const { geometry, matrixWorld } of piece.lines) {
      const index = geometry.getIndex();
      const numbers = geometry.getAttribute("component");
      const positions = geometry.getAttribute("position");
      if (!index) continue;
      for (let i = 0; i < index.count; i += 2) {
        const [a, b] = [index.getX(i), index.getX(i + 1)];
        if (Math.round(piece.first.value + numbers.getX(a)) !== component) continue;
        const end = (v: number) => new Vector3().fromBufferAttribute(positions, v).applyMatrix4(matrixWorld);
        yield [end(a), end(b)];
      }
    }
  }
}
