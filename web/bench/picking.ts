import {
  Box3,
  type BufferGeometry,
  LineSegments,
  Matrix4,
  Mesh,
  type PerspectiveCamera,
  Raycaster,
  Vector2,
} from "three";
import { MeshoptDecoder } from "three/addons/libs/meshopt_decoder.module.js";
import { GLTFLoader } from "three/addons/loaders/GLTFLoader.js";
import type { Federation } from "../src/api/client";
import { Picking } from "../src/stage/geometry/picking";
import type { Piece } from "../src/stage/geometry/piece";
import { matrixOf } from "../src/stage/layers/chunks";

const APART_M = 60;
const REFERENCE_RAYS = 20;
const TOGETHER = 10;

/** A piece whose faces three.js can look through by its own means. */
interface DrawnPiece extends Piece {
  faces: Mesh[];
}

async function load(federation: Federation, copies: number): Promise<DrawnPiece[]> {
  const loader = new GLTFLoader().setMeshoptDecoder(MeshoptDecoder);
  const pieces: DrawnPiece[] = [];
  for (const model of federation.models) {
    for (const place of model.chunks) {
      const answer = await fetch(`/api/blobs/${place.sha256}`);
      const parsed = await loader.parseAsync(await answer.arrayBuffer(), "");
      parsed.scene.updateMatrixWorld(true);
      for (let copy = 0; copy < copies; copy++) {
        const to = new Matrix4().makeTranslation(0, copy * APART_M, 0).multiply(matrixOf(place));
        const faces: Mesh[] = [];
        const bounds = new Box3();
        parsed.scene.traverse((object) => {
          if (!(object instanceof Mesh) || object instanceof LineSegments) return;
          const geometry: BufferGeometry = copy ? object.geometry.clone() : object.geometry;
          geometry.setAttribute("component", geometry.getAttribute("_component"));
          const face = new Mesh(geometry, object.material);
          face.matrixAutoUpdate = false;
          face.matrix.copy(to).multiply(object.matrixWorld);
          face.updateMatrixWorld(true);
          bounds.expandByObject(face);
          faces.push(face);
        });
        pieces.push({ faces, lines: [], bounds, first: { value: model.first } });
      }
    }
  }
  return pieces;
}

/** Milliseconds of our picks, of three.js's own, and the share of ours that met something. */
export async function timePicks(
  federation: Federation,
  camera: PerspectiveCamera,
  copies: number,
  count: number,
): Promise<[number[], number[], number]> {
  const pieces = await load(federation, copies);
  const picking = new Picking(
    () => pieces,
    () => true,
  );
  while (picking.buildOne());
  camera.updateMatrixWorld(true);
  // The same rays every time: a small generator of its own with a fixed beginning.
  let seed = 7;
  const next = () => {
    seed = (seed * 48271) % 2147483647;
    return (seed / 2147483647) * 2 - 1;
  };
  const caster = new Raycaster();
  const ours: number[] = [];
  const reference: number[] = [];
  let met = 0;
  // The browser's clock ticks too slowly for one ray, so so many are timed together.
  for (let i = 0; i < count; i += TOGETHER) {
    const rays = Array.from({ length: TOGETHER }, () => {
      caster.setFromCamera(new Vector2(next() * 0.8, next() * 0.5), camera);
      return caster.ray.clone();
    });
    const start = performance.now();
    for (const ray of rays) if (picking.first(ray)) met++;
    ours.push((performance.now() - start) / TOGETHER);
    if (reference.length >= REFERENCE_RAYS) continue;
    caster.ray.copy(rays[0] ?? caster.ray);
    const again = performance.now();
    for (const piece of pieces) caster.intersectObjects(piece.faces, false);
    reference.push(performance.now() - again);
  }
  return [ours, reference, met / count];
}
