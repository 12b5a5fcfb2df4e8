import { Box3, Ray, Vector3 } from "three";
import type { Federation } from "../api/client";
import { type ClipPlane, type Clips, NO_CLIPS } from "./clips";
import { type Boxing, boxed } from "./geometry/boxed";
import { type Hit, Picking } from "./geometry/picking";
import { boxesOf, edgesOf, pointsOf } from "./geometry/piece";
import {
  type Catches,
  drawnCatches,
  type GridOnPlan,
  type Sheet,
  type Snap,
  snapTo,
} from "./geometry/snapping";
import { Chunks } from "./layers/chunks";
import { sharedUniforms } from "./layers/materials";
import { BY_MATERIALS, colourTexture, StateTable } from "./states";

/** As long as a chunk's tree takes to build, or so. */
const TREE_MS = 8;

/** What a building tells the stage that shows it. */
export interface BuildingHost {
  /** Where the eye is, to fetch first what it sees. */
  eye(): Vector3;
  changed(): void;
  /** Chunks still to come, of how many. */
  streaming(pending: number, total: number, failed: readonly string[]): void;
  /** Everything that was sent for has come, and something of it is new. */
  complete(): void;
  /** Everything that is here can be picked. */
  pickable(): void;
}

/** The federation on the stage: what is drawn of it, in which states and colours, and what a ray meets. */
export class Building {
  readonly shared = sharedUniforms();
  readonly states = new StateTable();
  readonly chunks: Chunks;
  private readonly picking: Picking;
  private colours: { names: readonly string[]; each: readonly number[]; hatches: readonly number[] } = {
    names: [],
    each: [],
    hatches: [],
  };
  bounds = new Box3();
  /** The middle of what is picked, or null. */
  pickedCentre: Vector3 | null = null;
  /** What cuts it. */
  clips: Clips = NO_CLIPS;
  /** The building's grid on plan, for snapping. */
  grid: GridOnPlan = { crossings: [], lines: [] };
  private tints: Int32Array | null = null;
  /** Counts the changes of what stands there to be seen, whatever its colours. */
  shape = 0;
  /** How many chunks had arrived when all were told to be here. */
  private arrived = 0;

  constructor(private readonly host: BuildingHost) {
    this.chunks = new Chunks(
      this.shared,
      () => host.eye(),
      () => this.chunksChanged(),
    );
    this.picking = new Picking(
      () => this.chunks.pieces,
      (component) => this.states.isSolid(component),
    );
  }

  /** Draw a federation; what is drawn already stays. */
  setFederation(federation: Federation): void {
    this.colours = {
      names: federation.colours,
      each: federation.models.flatMap((m) => m.colour),
      hatches: federation.models.flatMap((m) => m.discipline),
    };
    this.states.resize(this.colours.each.length);
    this.shared.states.value = this.states.texture;
    this.setTints(null);
    const origin = new Vector3().fromArray(federation.origin_m);
    this.bounds = new Box3();
    for (const corner of federation.bounds_m ?? []) {
      this.bounds.expandByPoint(new Vector3().fromArray(corner).sub(origin));
    }
    this.chunks.setModels(federation.id, federation.models);
    this.reshaped();
  }

  /** Colour components by a rule: 0xRRGGBB each, -1 for its discipline's, BY_MATERIALS; nothing for all their disciplines'. */
  setTints(tints: Int32Array | null): void {
    this.shared.colours.value?.dispose();
    const { names, each, hatches } = this.colours;
    this.tints = tints;
    const paints = tints?.includes(BY_MATERIALS) ? this.chunks.paints() : null;
    this.shared.colours.value = colourTexture(names, each, tints, hatches, (i) => paints?.get(i));
    this.host.changed();
  }

  setVisible(states: Uint8Array): void {
    this.states.setVisible(states);
    this.chunks.setFading(this.states.anyFaded);
    this.reshaped();
  }

  private reshaped(): void {
    this.shape++;
    this.host.changed();
  }

  setPicked(components: readonly number[]): void {
    this.states.setPicked(components);
    const box = this.boxOf(components);
    this.pickedCentre = box.isEmpty() ? null : box.getCenter(new Vector3());
    this.host.changed();
  }

  /** Mark a component as being under the cursor, or none (-1). */
  mark(component: number): void {
    if (this.states.setHovered(component)) this.host.changed();
  }

  /** Whether a component is shown or faded now. */
  isDrawn(component: number): boolean {
    return this.states.isVisible(component);
  }

  /** The box around each component; those that are not drawn have none. */
  boxesOf(components: readonly number[]): ReadonlyMap<number, Box3> {
    return boxesOf(this.chunks.pieces, components);
  }

  /** The corners of each of some components, as they are drawn. */
  pointsOf(components: readonly number[]): ReadonlyMap<number, readonly Vector3[]> {
    return pointsOf(this.chunks.pieces, components);
  }

  /** The box around some components together; empty where none of them is drawn. */
  boxOf(components: readonly number[]): Box3 {
    const box = new Box3();
    for (const each of this.boxesOf(components).values()) box.union(each);
    return box;
  }

  edgesOf(component: number): Iterable<[Vector3, Vector3]> {
    return edgesOf(this.chunks.pieces, component);
  }

  /** The first component along a ray that is shown and not cut away, or null. */
  first(ray: Ray, clips: Clips = this.clips): Hit | null {
    return this.picking.first(ray, clips);
  }

  /** The components that are shown and meant by a box with such sides. */
  boxed(sides: readonly ClipPlane[], how: Boxing, clips: Clips): number[] {
    return boxed(this.chunks.pieces, sides, how, (component) => this.states.isSolid(component), clips);
  }

  /** Cut the building by planes; some components stay whole. */
  setClips(clips: Clips): void {
    this.clips = clips;
    this.states.setWhole(clips.whole);
    this.reshaped();
  }

  /** How far it is from one point to another before something that is shown is met, up to there. */
  clear(from: Vector3, to: Vector3): number {
    const way = to.clone().sub(from);
    const length = way.length();
    if (length < 1e-9) return 0;
    const hit = this.first(new Ray(from.clone(), way.divideScalar(length)));
    return hit ? Math.min(length, hit.point.distanceTo(from)) : length;
  }

  /** The exact point that is meant by a hit, by what of the component is caught, if that is known. */
  snapped(hit: Hit, catches: Catches | null, sheet: Sheet): Snap {
    const there = (point: Vector3) => !this.clips.takes(point, hit.component);
    const known = catches ?? drawnCatches(this.chunks.pieces, hit.component);
    return snapTo(hit, known, this.grid, sheet, there);
  }

  private chunksChanged(): void {
    const { pending, total, failed, arrived } = this.chunks;
    this.host.streaming(pending, total, failed);
    this.chunks.setFading(this.states.anyFaded);
    this.reshaped();
    if (pending > 0) return;
    // A federation that brings nothing new to draw is drawn as fast as before.
    if (arrived !== this.arrived) {
      this.host.complete();
      if (this.tints?.includes(BY_MATERIALS)) this.setTints(this.tints);
    }
    this.arrived = arrived;
    this.buildTrees();
  }

  private buildTrees(): void {
    const quiet = window.requestIdleCallback ?? ((run: () => void) => window.setTimeout(run, 16));
    const step = (spare?: IdleDeadline) => {
      let more = this.picking.buildOne();
      while (more && spare && spare.timeRemaining() > TREE_MS) more = this.picking.buildOne();
      if (more) quiet(step);
      else this.host.pickable();
    };
    quiet(step);
  }

  dispose(): void {
    this.chunks.dispose();
    this.states.texture.dispose();
    this.shared.colours.value?.dispose();
  }
}
