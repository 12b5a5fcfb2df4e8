import { Box3, BufferAttribute, BufferGeometry, Matrix4 } from "three";
import { expect, test } from "vitest";
import { boxesOf, type Piece, pointsOf } from "./piece";

/** A model whose components begin at 40: a rod turned by 45 degrees on plan, its corners named twice, and another one's corner. */
function piece(): Piece {
  const geometry = new BufferGeometry();
  const corners = [0, 0, 0, 3, 3, 0, 3, 3, 1, 3, 3, 1, 9, 9, 9];
  geometry.setAttribute("position", new BufferAttribute(new Float32Array(corners), 3));
  geometry.setAttribute("component", new BufferAttribute(new Float32Array([2, 2, 2, 2, 3]), 1));
  const faces = [{ geometry, matrixWorld: new Matrix4().makeTranslation(10, 0, 0) }];
  return { bounds: new Box3(), first: { value: 40 }, faces, lines: [] };
}

test("a component has its own corners, each once, and a box around them; what is not here has none", () => {
  expect(pointsOf([piece()], [42, 77])).toEqual(
    new Map([
      [
        42,
        [
          expect.objectContaining({ x: 10, y: 0, z: 0 }),
          expect.objectContaining({ x: 13, y: 3, z: 0 }),
          expect.objectContaining({ x: 13, y: 3, z: 1 }),
        ],
      ],
    ]),
  );
  const boxes = boxesOf([piece()], [42, 77]);
  expect([...boxes.keys()]).toEqual([42]);
  expect(boxes.get(42)).toMatchObject({ min: { x: 10, y: 0, z: 0 }, max: { x: 13, y: 3, z: 1 } });
});
