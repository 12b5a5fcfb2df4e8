import {
  BufferAttribute,
  BufferGeometry,
  DirectionalLight,
  HemisphereLight,
  LineSegments,
  Matrix4,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Scene,
  Vector3,
  WebGLRenderer,
} from "three";
import { MeshoptDecoder } from "three/addons/libs/meshopt_decoder.module.js";
import { GLTFLoader } from "three/addons/loaders/GLTFLoader.js";
import type { Federation, PoseShape } from "../src/api/client";
import { matrixOf } from "../src/stage/layers/chunks";
import { drawsByProcessor } from "../src/stage/smoothing";
import { timePicks } from "./picking";

declare global {
  interface Window {
    makeBare(given: [string, [number, number], string]): Promise<number>;
    /** Milliseconds of frames, each seen from its place where one is given: eye, target and up. */
    timeBare(count: number, places?: readonly (readonly number[][])[]): Promise<number[]>;
    timePicking(given: [number, number]): Promise<[number[], number[], number]>;
  }
}

let frame: () => void = () => undefined;
let gl: WebGL2RenderingContext;
let drawn: Federation;
let camera: PerspectiveCamera;

/** All standing triangles of a project as one mesh, one material, two lights: the reference of the benches. */
window.makeBare = async ([project, [width, height], poseText]) => {
  const federation = (await (await fetch(`/api/projects/${project}/federation`)).json()) as Federation;
  drawn = federation;
  const loader = new GLTFLoader().setMeshoptDecoder(MeshoptDecoder);
  const positions: number[] = [];
  const normals: number[] = [];
  const indices: number[] = [];
  const point = new Vector3();
  for (const model of federation.models) {
    for (const chunk of model.chunks) {
      const parsed = await loader.parseAsync(
        await (await fetch(`/api/blobs/${chunk.sha256}`)).arrayBuffer(),
        "",
      );
      const place = matrixOf(chunk);
      parsed.scene.updateMatrixWorld(true);
      const offset = positions.length / 3;
      let placed = false;
      parsed.scene.traverse((object) => {
        if (!(object instanceof Mesh) || object instanceof LineSegments) return;
        const geometry: BufferGeometry = object.geometry;
        const to = new Matrix4().multiplyMatrices(place, object.matrixWorld);
        if (!placed) {
          const at = geometry.getAttribute("position");
          const way = geometry.getAttribute("normal");
          for (let i = 0; i < at.count; i++) {
            point.fromBufferAttribute(at, i).applyMatrix4(to);
            positions.push(point.x, point.y, point.z);
            point.fromBufferAttribute(way, i).transformDirection(to);
            normals.push(point.x, point.y, point.z);
          }
          placed = true;
        }
        for (const i of geometry.index?.array ?? []) indices.push(i + offset);
      });
    }
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(new Float32Array(positions), 3));
  geometry.setAttribute("normal", new BufferAttribute(new Float32Array(normals), 3));
  geometry.setIndex(new BufferAttribute(new Uint32Array(indices), 1));
  const canvas = document.querySelector("canvas");
  if (!canvas) throw new Error("no canvas");
  const renderer = new WebGLRenderer({ canvas, antialias: !drawsByProcessor() });
  renderer.setPixelRatio(1);
  renderer.setSize(width, height);
  renderer.setClearColor(0xf3f1ec);
  const scene = new Scene();
  const sun = new DirectionalLight(0xffffff, 2);
  sun.position.set(0.38, -0.52, 0.76);
  scene.add(
    sun,
    new HemisphereLight(0xffffff, 0x888888, 1.5),
    new Mesh(geometry, new MeshLambertMaterial({ color: 0xbbb8b0 })),
  );
  const pose = JSON.parse(poseText) as PoseShape;
  camera = new PerspectiveCamera(
    (Math.atan(Math.tan((pose.angle_deg * Math.PI) / 360) / (width / height)) * 360) / Math.PI,
    width / height,
    10,
    400,
  );
  stand([pose.eye_m, pose.target_m, pose.up]);
  gl = renderer.getContext() as WebGL2RenderingContext;
  frame = () => renderer.render(scene, camera);
  frame();
  return indices.length / 3;
};

/** Look from where the other page looked in one of its frames. */
function stand([eye, target, up]: readonly number[][]): void {
  camera.up.fromArray(up ?? []);
  camera.position.fromArray(eye ?? []);
  camera.lookAt(new Vector3().fromArray(target ?? []));
}

window.timeBare = async (count, places = []) => {
  const pixel = new Uint8Array(4);
  const times: number[] = [];
  for (let i = 0; i < count; i++) {
    const place = places[i];
    const start = performance.now();
    if (place) stand(place);
    frame();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
    times.push(performance.now() - start);
    if (i % 4 === 0) await new Promise((done) => setTimeout(done));
  }
  return times;
};

window.timePicking = async ([copies, count]) => timePicks(drawn, camera, copies, count);
