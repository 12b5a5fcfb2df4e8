import { Box3, BoxGeometry, BufferAttribute, Matrix4, Ray, Vector3 } from "three";
import { expect, test } from "vitest";
import { Picking } from "./picking";
import type { Piece } from "./piece";

/** A piece with a cube of 2 m for each component, at the given places. */
function piece(first: number, places: readonly [number, Vector3][]): Piece {
  const bounds = new Box3();
  const faces = places.map(([number, at]) => {
    const geometry = new BoxGeometry(2, 2, 2);
    const count = geometry.getAttribute("position").count;
    geometry.setAttribute("component", new BufferAttribute(new Float32Array(count).fill(number), 1));
    bounds.union(new Box3().setFromCenterAndSize(at, new Vector3(2, 2, 2)));
    return { geometry, matrixWorld: new Matrix4().setPosition(at) };
  });
  return { bounds, first: { value: first }, faces, lines: [] };
}

function picking(pieces: Piece[], solid: (component: number) => boolean = () => true): Picking {
  return new Picking(() => pieces, solid);
}

const along = (x: number) => new Ray(new Vector3(x, -50, 0), new Vector3(0, 1, 0));

test("the nearest of all pieces is picked, with its point and the way its face looks", () => {
  const scene = picking([
    piece(0, [[0, new Vector3(0, 20, 0)]]),
    piece(100, [
      [0, new Vector3(0, 10, 0)],
      [7, new Vector3(0, 0, 0)],
    ]),
  ]);
  const hit = scene.first(along(0.3));
  expect(hit?.component).toBe(107);
  expect(hit?.point.toArray()).toEqual([0.3, -1, 0]);
  expect(hit?.normal.toArray().map((v) => v + 0)).toEqual([0, -1, 0]);
  expect(hit?.distance).toBeCloseTo(49, 9);
});

test("what is hidden or faded does not stand in the way", () => {
  const pieces = [piece(0, [[0, new Vector3(0, 0, 0)]]), piece(10, [[0, new Vector3(0, 10, 0)]])];
  expect(picking(pieces, (component) => component !== 0).first(along(0))?.component).toBe(10);
});

test("from inside, the far side is met", () => {
  const scene = picking([piece(0, [[3, new Vector3(0, 0, 0)]])]);
  const hit = scene.first(new Ray(new Vector3(0, 0, 0), new Vector3(1, 0, 0)));
  expect(hit?.component).toBe(3);
  expect(hit?.distance).toBeCloseTo(1, 9);
});

test("past everything there is nothing", () => {
  const scene = picking([piece(0, [[0, new Vector3(0, 0, 0)]])]);
  expect(scene.first(along(5))).toBeNull();
});

test("trees are built one at a time until there is none left to build", () => {
  const scene = picking([
    piece(0, [
      [0, new Vector3(0, 0, 0)],
      [1, new Vector3(5, 0, 0)],
    ]),
  ]);
  expect([scene.buildOne(), scene.buildOne(), scene.buildOne()]).toEqual([true, true, false]);
});

test("of two faces that touch within a millimetre the one seen from within is met, since it is a section", () => {
  const behind = (gap: number) =>
    picking([piece(0, [[0, new Vector3(0, 0, 0)]]), piece(10, [[0, new Vector3(0, 2 + gap, 0)]])]);
  const within = new Ray(new Vector3(0, 0, 0), new Vector3(0, 1, 0));
  expect(behind(0).first(within)?.component).toBe(0);
  expect(behind(-0.0009).first(within)?.component).toBe(0);
  expect(behind(-0.0011).first(within)?.component).toBe(10);
});
