import { Box3, BufferAttribute, BufferGeometry, Matrix4, Vector2, Vector3 } from "three";
import { expect, test } from "vitest";
import type { Piece } from "./piece";
import { type Catches, drawnCatches, type GridOnPlan, gridOf, rayTo, type Sheet, snapTo } from "./snapping";

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
const catches = drawnCatches([piece()], 5);
const LINES: Catches = {
  corners: [],
  middles: [],
  centres: [new Vector3(2, 3, 0)],
  edges: [],
  lines: [[new Vector3(0, 2, -0.5), new Vector3(4, 2, -0.5)]],
};
const NO_GRID: GridOnPlan = { crossings: [], lines: [] };
const snap = (x: number, y: number, known = catches, grid: GridOnPlan = NO_GRID, takes?: Sheet["takes"]) => {
  const point = new Vector3(x, y, 0);
  return snapTo({ component: 5, point, normal: new Vector3(0, 0, 1), distance: 1 }, known, grid, {
    ray: rayTo(point, new Vector3(0, 0, -1), 10),
    pixelOf: (p) => ({ x: p.x * 100, y: -p.y * 100 }),
    takes,
  });
};

test("a click near a corner means the corner", () => {
  expect(snap(0.1, 0.05)).toMatchObject({ kind: "corner", point: { x: 0, y: 0, z: 0 } });
});

test("a click near the middle of an edge means the middle", () => {
  expect(snap(2.05, -0.1)).toMatchObject({
    kind: "middle",
    point: { x: 2, y: 0, z: 0 },
    ends: [{ x: 0 }, { x: 4 }],
  });
});

test("a click near a grid crossing means the crossing, at the height of the face", () => {
  const grid = { ...NO_GRID, crossings: [new Vector2(1, 1)] };
  expect(snap(1.05, 1, catches, grid)).toEqual({ kind: "crossing", point: new Vector3(1, 1, 0) });
});

test("a click near an edge means its nearest point, near a grid line that of the line", () => {
  expect(snap(1, 0.05)).toMatchObject({ kind: "edge", point: { x: 1, y: 0, z: 0 } });
  const grid = { ...NO_GRID, lines: [[new Vector2(0, 1), new Vector2(9, 1)] as const] };
  expect(snap(1.5, 1.05, catches, grid)).toMatchObject({ kind: "gridline", point: { x: 1.5, y: 1, z: 0 } });
});

test("within a part its centre line is caught, at the end its centre; of a face its centre", () => {
  expect(snap(1, 2.05, LINES)).toMatchObject({ kind: "axis", point: { x: 1, y: 2, z: -0.5 } });
  expect(snap(0.05, 2.05, LINES)).toMatchObject({ kind: "centre", point: { x: 0, y: 2, z: -0.5 } });
  expect(snap(2.05, 3, LINES)).toMatchObject({ kind: "centre", point: { x: 2, y: 3, z: 0 } });
});

test("a tool for edges catches the edge at a corner, and of a face its point", () => {
  const takes = ["middle", "edge"] as const;
  expect(snap(0.1, 0.05, catches, NO_GRID, takes)).toMatchObject({
    kind: "edge",
    ends: [{ x: 0 }, { x: 4 }],
  });
  expect(snap(1, 2.05, LINES, NO_GRID, takes)).toMatchObject({
    kind: "face",
    point: { x: 1, y: 2.05, z: 0 },
  });
});

test("of corners that look the same the one on this side is meant", () => {
  const both: Catches = {
    ...LINES,
    corners: [new Vector3(1, 1, -2), new Vector3(1.08, 1, 0)],
  };
  expect(snap(1, 1, both)).toMatchObject({ kind: "corner", point: { z: 0 } });
  expect(snap(1, 1, { ...both, corners: both.corners.slice(0, 1) })).toMatchObject({ point: { z: -2 } });
});

test("a click anywhere else means the point itself", () => {
  expect(snap(1, 0.5).kind).toBe("face");
  expect(drawnCatches([piece()], 6).edges).toEqual([]);
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
  expect(gridOf(axes).crossings.map((p) => p.toArray())).toEqual([
    [0, 2],
    [6, 2],
  ]);
});
