import { Box3, BufferAttribute, BufferGeometry, Matrix4, Vector2, Vector3 } from "three";
import { expect, test } from "vitest";
import type { Piece } from "./piece";
import { crossingsOf, snapTo } from "./snapping";

/** One component, 5, with an edge from (0, 0, 0) to (4, 0, 0), seen from above at 100 pixels a metre. */
function piece(): Piece {
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(new Float32Array([0, 0, 0, 4, 0, 0]), 3));
  geometry.setAttribute("component", new BufferAttribute(new Float32Array([5, 5]), 1));
  geometry.setIndex([0, 1]);
  return {
    bounds: new Box3(),
    first: { value: 0 },
    faces: [],
    lines: [{ geometry, matrixWorld: new Matrix4() }],
  };
}
const size = { width: 1000, height: 1000 };
const project = (p: Vector3) => new Vector2(p.x / 5, p.y / 5);
const snap = (x: number, y: number, component = 5, crossings: Vector2[] = []) =>
  snapTo(
    { component, point: new Vector3(x, y, 0), normal: new Vector3(0, 0, 1), distance: 1 },
    [piece()],
    crossings,
    project,
    size,
  );

test("a click near a corner means the corner", () => {
  expect(snap(0.1, 0.05)).toEqual({ kind: "corner", point: new Vector3(0, 0, 0) });
});

test("a click near the middle of an edge means the middle", () => {
  expect(snap(2.05, -0.1)).toEqual({ kind: "middle", point: new Vector3(2, 0, 0) });
});

test("a click near a grid crossing means the crossing, at the height of the face", () => {
  expect(snap(1.05, 1, 5, [new Vector2(1, 1)])).toEqual({ kind: "crossing", point: new Vector3(1, 1, 0) });
});

test("a click anywhere else means the point itself, and other components' edges do not count", () => {
  expect(snap(1, 0.05).kind).toBe("face");
  expect(snap(0.1, 0.05, 6).kind).toBe("face");
});

test("axes cross where they meet, parallel ones nowhere", () => {
  const axes = [
    {
      ends: [
        [0, -5],
        [0, 5],
      ],
    },
    {
      ends: [
        [6, -5],
        [6, 5],
      ],
    },
    {
      ends: [
        [-5, 2],
        [9, 2],
      ],
    },
  ];
  expect(crossingsOf(axes).map((p) => p.toArray())).toEqual([
    [0, 2],
    [6, 2],
  ]);
});
