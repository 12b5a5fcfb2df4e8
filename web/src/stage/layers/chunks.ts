import {
  Box3,
  BufferAttribute,
  type BufferGeometry,
  Group,
  type IUniform,
  LineSegments,
  Matrix4,
  Mesh,
  Vector3,
} from "three";
import { MeshoptDecoder } from "three/addons/libs/meshopt_decoder.module.js";
import { GLTFLoader } from "three/addons/loaders/GLTFLoader.js";
import { Away, blobAddress, type FederatedModel, toBytes } from "../../api/client";
import { onBack } from "../../api/connection";
import type { Piece } from "../geometry/piece";
import { type Frame, type Layer, LINES_LAYER, SURFACES_LAYER } from "./layer";
import {
  backBy,
  fineReach,
  type ModelMaterials,
  modelMaterials,
  type Pass,
  type SharedUniforms,
} from "./materials";

type ChunkPlace = FederatedModel["chunks"][number];

/** A part with the pass that draws it. */
interface Drawn {
  part: Mesh | LineSegments;
  pass: Pass;
}

/** A chunk on the stage: its drawn parts and where it lies. */
interface Chunk extends Piece {
  group: Group;
  faces: Mesh[];
  fadedFaces: Mesh[];
  /** Every edge; the fine ones are left out where they are too far to be seen. */
  lines: LineSegments[];
  edges: LineSegments[];
  fineEdges: LineSegments[];
  /** Everything that is drawn of it, with the pass that draws it. */
  passes: Drawn[];
  /** What stands before what is behind it. */
  surfaces: Drawn[];
}

interface Wanted {
  key: string;
  model: FederatedModel;
  place: ChunkPlace;
  centre: Vector3;
  size: number;
}

const AT_ONCE = 6;
/** Nearer than this nothing is looked at as a whole. */
const NEAR_M = 8;

/** Where a chunk lies about the origin. */
export function matrixOf(place: ChunkPlace): Matrix4 {
  const m = place.matrix;
  const at = (i: number) => m[i] ?? 0;
  return new Matrix4().set(
    at(0),
    at(1),
    at(2),
    at(3),
    at(4),
    at(5),
    at(6),
    at(7),
    at(8),
    at(9),
    at(10),
    at(11),
    0,
    0,
    0,
    1,
  );
}

interface ChunkExtras {
  kinds: string[];
  ordinals: number[];
  /** 0xRRGGBBAA each. */
  paints?: number[];
}

/** Fetches chunks, nearest and largest first, and keeps them drawn. */
export class Chunks implements Layer {
  readonly name = "chunks";
  readonly root = new Group();
  private readonly loader = new GLTFLoader().setMeshoptDecoder(MeshoptDecoder);
  private readonly here = new Map<string, Chunk>();
  private readonly firsts = new Map<string, IUniform<number>>();
  private readonly materials = new Map<string, ModelMaterials>();
  private waiting: Wanted[] = [];
  private readonly underway = new Set<string>();
  /** Pieces that wait for the server to come back. */
  private readonly awaited = new Set<() => void>();
  private wantedKeys = new Set<string>();
  private projectId = "";
  private fading = false;
  private way: keyof Pass = "plain";
  failed: string[] = [];
  /** Counts the chunks that have come. */
  arrived = 0;

  constructor(
    private readonly shared: SharedUniforms,
    private readonly eye: () => Vector3,
    private readonly onChange: () => void,
  ) {
    this.root.matrixAutoUpdate = false;
  }

  get pieces(): Iterable<Piece> {
    return this.here.values();
  }

  get pending(): number {
    return this.waiting.length + this.underway.size + this.awaited.size;
  }

  get total(): number {
    return this.wantedKeys.size;
  }

  /** Say which models to draw: chunks that stay are kept, others go, new ones are fetched. */
  setModels(projectId: string, models: readonly FederatedModel[]): void {
    this.projectId = projectId;
    this.failed = [];
    const wanted = new Map<string, Wanted>();
    for (const model of models) {
      const first = this.firsts.get(model.id) ?? { value: 0 };
      first.value = model.first;
      this.firsts.set(model.id, first);
      for (const place of model.chunks) {
        const key = `${model.id}/${place.sha256}/${place.matrix.join()}`;
        const matrix = matrixOf(place);
        const b = place.bounds_m;
        const size = Math.hypot(
          (b[3] ?? 0) - (b[0] ?? 0),
          (b[4] ?? 0) - (b[1] ?? 0),
          (b[5] ?? 0) - (b[2] ?? 0),
        );
        const centre = new Vector3().setFromMatrixPosition(matrix);
        wanted.set(key, { key, model, place, centre, size });
      }
    }
    for (const [key, chunk] of this.here) {
      if (!wanted.has(key)) {
        this.root.remove(chunk.group);
        for (const mesh of [...chunk.faces, ...chunk.lines]) mesh.geometry.dispose();
        this.here.delete(key);
      }
    }
    this.wantedKeys = new Set(wanted.keys());
    this.waiting = [...wanted.values()].filter((w) => !this.here.has(w.key) && !this.underway.has(w.key));
    this.pump();
    this.onChange();
  }

  private pump(): void {
    const eye = this.eye();
    while (this.underway.size < AT_ONCE && this.waiting.length) {
      let best = 0;
      let bestScore = -1;
      this.waiting.forEach((w, i) => {
        const score = w.size / Math.max(1, w.centre.distanceTo(eye));
        if (score > bestScore) [best, bestScore] = [i, score];
      });
      const [next] = this.waiting.splice(best, 1);
      if (next) void this.fetch(next);
    }
  }

  private async fetch(wanted: Wanted): Promise<void> {
    this.underway.add(wanted.key);
    try {
      const bytes = await toBytes(
        fetch(blobAddress(this.projectId, wanted.place.sha256)),
        "A piece of the building",
      );
      const parsed = await this.loader.parseAsync(bytes, "");
      if (this.wantedKeys.has(wanted.key)) this.add(wanted, parsed.scene);
    } catch (error) {
      if (error instanceof Away) this.put(wanted);
      else this.failed.push(wanted.model.name);
    } finally {
      this.underway.delete(wanted.key);
      this.pump();
      this.onChange();
    }
  }

  /** Fetch a piece that did not arrive as soon as the server can be reached again. */
  private put(wanted: Wanted): void {
    const off = onBack(() => {
      off();
      this.awaited.delete(off);
      if (!this.wantedKeys.has(wanted.key) || this.here.has(wanted.key) || this.underway.has(wanted.key))
        return;
      if (!this.waiting.some((w) => w.key === wanted.key)) this.waiting.push(wanted);
      this.pump();
      this.onChange();
    });
    this.awaited.add(off);
  }

  /** Wait for nothing any more. */
  dispose(): void {
    for (const off of this.awaited) off();
    this.awaited.clear();
    this.setModels("", []);
  }

  private materialsOf(model: string, first: IUniform<number>): ModelMaterials {
    const found = this.materials.get(model) ?? modelMaterials(this.shared, first);
    this.materials.set(model, found);
    return found;
  }

  private add(wanted: Wanted, scene: Group): void {
    const first = this.firsts.get(wanted.model.id) ?? { value: 0 };
    const materials = this.materialsOf(wanted.model.id, first);
    const group = new Group();
    group.matrixAutoUpdate = false;
    group.matrix.copy(matrixOf(wanted.place));
    const chunk: Chunk = {
      group,
      faces: [],
      fadedFaces: [],
      lines: [],
      edges: [],
      fineEdges: [],
      passes: [],
      surfaces: [],
      bounds: new Box3(),
      first,
    };
    const drawn: (Mesh | LineSegments)[] = [];
    scene.updateMatrixWorld(true);
    scene.traverse((object) => {
      if (object instanceof Mesh || object instanceof LineSegments) drawn.push(object);
    });
    const parent = drawn[0]?.parent;
    const own = drawn[0]?.userData as Partial<ChunkExtras> | undefined;
    const extras = own?.kinds ? own : (parent?.userData as Partial<ChunkExtras> | undefined);
    const kinds = extras?.kinds ?? [];
    const ordinals = extras?.ordinals ?? [];
    let numbers: BufferAttribute | undefined;
    let paints: BufferAttribute | undefined;
    drawn.forEach((object, i) => {
      const geometry: BufferGeometry = object.geometry;
      numbers ??= componentNumbers(geometry, ordinals);
      paints ??= vertexPaints(geometry, extras?.paints ?? []);
      geometry.deleteAttribute("_component");
      geometry.deleteAttribute("_paint");
      geometry.setAttribute("component", numbers);
      geometry.setAttribute("paint", paints);
      geometry.computeBoundingBox();
      geometry.computeBoundingSphere();
      const kind = kinds[i];
      const add = (part: Mesh | LineSegments, pass: Pass) => {
        chunk.passes.push({ part, pass });
        part.matrixAutoUpdate = false;
        part.matrix.copy(object.matrixWorld);
        group.add(part);
      };
      if (kind === "edges" || kind === "fine edges") {
        const fine = kind === "fine edges";
        const pass = fine ? materials.fineEdges : materials.edges;
        const lines = new LineSegments(geometry, pass.plain);
        lines.renderOrder = 1;
        lines.layers.enable(LINES_LAYER);
        add(lines, pass);
        chunk.lines.push(lines);
        (fine ? chunk.fineEdges : chunk.edges).push(lines);
        return;
      }
      const opaque = kind === "opaque";
      const pass = opaque ? materials.opaque : materials.glass;
      const face = new Mesh(geometry, pass.plain);
      face.renderOrder = opaque ? 0 : 3;
      // What is behind glass has no lines but its own.
      face.layers.enable(SURFACES_LAYER);
      chunk.surfaces.push({ part: face, pass: materials.surface });
      add(face, pass);
      chunk.faces.push(face);
      const faded = new Mesh(geometry, materials.faded.plain);
      faded.renderOrder = 2;
      add(faded, materials.faded);
      chunk.fadedFaces.push(faded);
    });
    group.updateMatrixWorld(true);
    for (const face of chunk.faces) chunk.bounds.expandByObject(face);
    this.here.set(wanted.key, chunk);
    this.arrived++;
    this.root.add(group);
  }

  /** Draw the pass of faded components only while there are any. */
  setFading(fading: boolean): void {
    this.fading = fading;
  }

  /** Draw edges, and of the fine ones those that are near enough to be seen. */
  ready({ pose, pixelM, style, edges, clips }: Frame): void {
    const way = clips.planes.length ? "cut" : "plain";
    this.way = way;
    const reach = fineReach(pixelM, pose.projection === "parallel");
    const away = pose.projection === "parallel" ? 1 : Math.max(NEAR_M, pose.eye.distanceTo(pose.target));
    for (const passes of this.materials.values())
      for (const pass of Object.values(passes)) pass[way].polygonOffsetFactor = backBy(pixelM * away);
    for (const chunk of this.here.values()) {
      for (const { part, pass } of chunk.passes) part.material = pass[way];
      for (const mesh of chunk.edges) mesh.visible = edges;
      for (const mesh of chunk.fadedFaces) mesh.visible = this.fading || style === "clear";
      for (const mesh of chunk.faces)
        mesh.visible = style !== "clear" && (style !== "lines" || mesh.renderOrder === 0);
      const near = edges && chunk.bounds.distanceToPoint(pose.eye) < reach;
      for (const mesh of chunk.fineEdges) mesh.visible = near;
    }
  }

  /** The file's own colour of each component that is here and has one, 0xRRGGBB by dense number. */
  paints(): Map<number, number> {
    const found = new Map<number, number>();
    for (const { faces, first } of this.here.values()) {
      // All parts of a chunk share their vertices.
      const geometry = faces[0]?.geometry;
      const numbers = geometry?.getAttribute("component");
      const paints = geometry?.getAttribute("paint").array;
      for (let i = 0; i < (numbers?.count ?? 0); i++) {
        const component = Math.round(first.value + (numbers?.getX(i) ?? 0));
        if (!paints?.[i * 4 + 3] || found.has(component)) continue;
        const [r = 0, g = 0, b = 0] = [paints[i * 4], paints[i * 4 + 1], paints[i * 4 + 2]];
        found.set(component, (r << 16) | (g << 8) | b);
      }
    }
    return found;
  }

  drawSurfaces(instead: boolean): void {
    for (const { surfaces, passes } of this.here.values())
      for (const { part, pass } of instead ? surfaces : passes) part.material = pass[this.way];
  }
}

/** The file's own colour of each vertex, with how much it covers; nothing at all where there is none. */
function vertexPaints(geometry: BufferGeometry, paints: readonly number[]): BufferAttribute {
  const { count } = geometry.getAttribute("position");
  const local = geometry.getAttribute("_paint");
  const colours = new Uint8Array(count * 4);
  const bytes = new DataView(colours.buffer);
  if (local) for (let i = 0; i < count; i++) bytes.setUint32(i * 4, paints[local.getX(i)] ?? 0);
  return new BufferAttribute(colours, 4, true);
}

/** The component of each vertex as its number within the model. */
function componentNumbers(geometry: BufferGeometry, ordinals: readonly number[]): BufferAttribute {
  const local = geometry.getAttribute("_component");
  const numbers = new Float32Array(local.count);
  for (let i = 0; i < local.count; i++) numbers[i] = ordinals[local.getX(i)] ?? 0;
  return new BufferAttribute(numbers, 1);
}
