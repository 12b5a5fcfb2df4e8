import { Box3, BoxGeometry, BufferAttribute, Group, Mesh, Ray, Vector3 } from "three";
import { expect, test } from "vitest";
import type { Chunk, Chunks } from "./chunks";
import { Picking } from "./picking";

/** A chunk with a cube of 2 m for each component, at the given places. */
function chunk(first: number, places: readonly [number, Vector3][]): Chunk {
  const faces = places.map(([number, at]) => {
    const geometry = new BoxGeometry(2, 2, 2);
    const count = geometry.getAttribute("position").count;
    geometry.setAttribute("component", new BufferAttribute(new Float32Array(count).fill(number), 1));
    const mesh = new Mesh(geometry);
    mesh.position.copy(at);
    mesh.updateMatrixWorld(true);
    return mesh;
  });
  const bounds = new Box3();
  for (const face of faces) bounds.expandByObject(face);
  return {
    key: String(first),
    model: "m",
    group: new Group(),
    faces,
    fadedFaces: [],
    edges: [],
    fineEdges: [],
    bounds,
    first: { value: first },
  };
}

function picking(chunks: Chunk[], solid: (component: number) => boolean = () => true): Picking {
  return new Picking({ list: chunks } as unknown as Chunks, solid);
}

const along = (x: number) => new Ray(new Vector3(x, -50, 0), new Vector3(0, 1, 0));

test("the nearest of all chunks is picked, with its point and the way its face looks", () => {
  const scene = picking([
    chunk(0, [[0, new Vector3(0, 20, 0)]]),
    chunk(100, [
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
  const chunks = [chunk(0, [[0, new Vector3(0, 0, 0)]]), chunk(10, [[0, new Vector3(0, 10, 0)]])];
  expect(picking(chunks, (component) => component !== 0).first(along(0))?.component).toBe(10);
});

test("from inside, the far side is met", () => {
  const scene = picking([chunk(0, [[3, new Vector3(0, 0, 0)]])]);
  const hit = scene.first(new Ray(new Vector3(0, 0, 0), new Vector3(1, 0, 0)));
  expect(hit?.component).toBe(3);
  expect(hit?.distance).toBeCloseTo(1, 9);
});

test("past everything there is nothing", () => {
  const scene = picking([chunk(0, [[0, new Vector3(0, 0, 0)]])]);
  expect(scene.first(along(5))).toBeNull();
});

test("trees are built one at a time until there is none left to build", () => {
  const scene = picking([
    chunk(0, [
      [0, new Vector3(0, 0, 0)],
      [1, new Vector3(5, 0, 0)],
    ]),
  ]);
  expect([scene.buildOne(), scene.buildOne(), scene.buildOne()]).toEqual([true, true, false]);
});
