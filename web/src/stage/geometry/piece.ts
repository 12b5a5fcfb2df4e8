import { Box3, type BufferGeometry, type IUniform, type Matrix4, Vector3 } from "three";

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

/** Each corner of the faces of some components, with the component that it is of; the point is the same object each time. */
function* verticesOf(pieces: Iterable<Piece>, components: ReadonlySet<number>): Generator<[number, Vector3]> {
  if (!components.size) return;
  const point = new Vector3();
  for (const { faces, first } of pieces)
    for (const { geometry, matrixWorld } of faces) {
      const numbers = geometry.getAttribute("component");
      const positions = geometry.getAttribute("position");
      for (let vertex = 0; vertex < positions.count; vertex++) {
        const component = Math.round(first.value + numbers.getX(vertex));
        if (components.has(component))
          yield [component, point.fromBufferAttribute(positions, vertex).applyMatrix4(matrixWorld)];
      }
    }
}

/** The box around each of some components, by their dense numbers; those that are not here have none. */
export function boxesOf(pieces: Iterable<Piece>, components: readonly number[]): Map<number, Box3> {
  const boxes = new Map<number, Box3>();
  for (const [component, point] of verticesOf(pieces, new Set(components))) {
    const box = boxes.get(component) ?? new Box3();
    boxes.set(component, box);
    box.expandByPoint(point);
  }
  return boxes;
}

/** The corners of each of some components, each once; those that are not here have none. */
export function pointsOf(pieces: Iterable<Piece>, components: readonly number[]): Map<number, Vector3[]> {
  const points = new Map<number, Map<string, Vector3>>();
  for (const [component, point] of verticesOf(pieces, new Set(components))) {
    const those = points.get(component) ?? new Map<string, Vector3>();
    points.set(component, those);
    those.set(point.toArray().join(), point.clone());
  }
  return new Map([...points].map(([component, those]) => [component, [...those.values()]]));
}
