import { Box3, BoxGeometry, BufferAttribute, Matrix4, Ray, Vector3 } from "three";
import { expect, test } from "vitest";
import { Clips, clipPlane, NO_CLIPS } from "../clips";
import { boxed, sidesOf } from "./boxed";
import type { Piece } from "./piece";

/** Cubes of 2 m at places, numbered from one on. */
function cubes(...places: Vector3[]): Piece {
  const bounds = new Box3();
  const faces = places.map((at, number) => {
    const geometry = new BoxGeometry(2, 2, 2);
    const { count } = geometry.getAttribute("position");
    geometry.setAttribute("component", new BufferAttribute(new Float32Array(count).fill(number), 1));
    bounds.union(new Box3().setFromCenterAndSize(at, new Vector3(2, 2, 2)));
    return { geometry, matrixWorld: new Matrix4().setPosition(at) };
  });
  return { bounds, first: { value: 1 }, faces, lines: [] };
}

/** What is seen through a box, looking along y, from the origin or square on. */
function sides([left, right, low, high]: [number, number, number, number], from: "eye" | "afar") {
  const ray = (x: number, z: number) =>
    from === "eye"
      ? new Ray(new Vector3(), new Vector3(x, 10, z).normalize())
      : new Ray(new Vector3(x, 0, z), new Vector3(0, 1, 0));
  const rays = [ray(left, low), ray(right, low), ray(right, high), ray(left, high)];
  const front = clipPlane(new Vector3(0, -1, 0), new Vector3());
  return [...sidesOf(rays, ray((left + right) / 2, (low + high) / 2)), front];
}

const ROW = cubes(
  new Vector3(0, 10, 0),
  new Vector3(4, 10, 0),
  new Vector3(8, 10, 0),
  new Vector3(0, -10, 0),
);
const all = () => true;

test.each(["eye", "afar"] as const)(
  "a box means what is wholly inside it, or what reaches into it (%s)",
  (from) => {
    const box = sides([-1.5, 4, -1.5, 1.5], from);
    expect(boxed([ROW], box, "inside", all, NO_CLIPS)).toEqual([1]);
    expect(boxed([ROW], box, "touching", all, NO_CLIPS)).toEqual([1, 2]);
  },
);

test("a box within one face touches what it is drawn on", () => {
  const box = sides([7.9, 8.1, -0.1, 0.1], "afar");
  expect(boxed([ROW], box, "touching", all, NO_CLIPS)).toEqual([3]);
  expect(boxed([ROW], box, "inside", all, NO_CLIPS)).toEqual([]);
});

test("what is hidden is not meant", () => {
  const box = sides([-20, 20, -20, 20], "afar");
  expect(boxed([ROW], box, "inside", (component) => component !== 2, NO_CLIPS)).toEqual([1, 3]);
});

test("what a cut takes away does not count", () => {
  const cut = new Clips([clipPlane(new Vector3(1, 0, 0), new Vector3(4, 0, 0))]);
  expect(boxed([ROW], sides([2.5, 4.5, -2, 2], "afar"), "inside", all, cut)).toEqual([2]);
  expect(boxed([ROW], sides([4.5, 20, -2, 2], "afar"), "touching", all, cut)).toEqual([]);
  const spared = new Clips(cut.planes, new Set([3]));
  expect(boxed([ROW], sides([4.5, 20, -2, 2], "afar"), "touching", all, spared)).toEqual([3]);
});

test("a component in two pieces is inside only where both are", () => {
  const apart = [cubes(new Vector3(0, 10, 0)), cubes(new Vector3(40, 10, 0))];
  expect(boxed(apart, sides([-2, 2, -2, 2], "afar"), "inside", all, NO_CLIPS)).toEqual([]);
  expect(boxed(apart, sides([-2, 2, -2, 2], "afar"), "touching", all, NO_CLIPS)).toEqual([1]);
});
