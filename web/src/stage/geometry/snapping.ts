import { Ray, Vector2, Vector3 } from "three";
import type { Hit } from "./picking";
import { edgesOf, type Piece } from "./piece";

export type SnapKind = "corner" | "middle" | "crossing" | "centre" | "axis" | "edge" | "gridline" | "face";

/** What of a component the cursor catches. */
export interface Catches {
  corners: readonly Vector3[];
  /** Middles of edges. */
  middles: readonly Vector3[];
  /** Centres of flat faces. */
  centres: readonly Vector3[];
  edges: readonly Segment[];
  /** Centre lines of round and extruded parts. */
  lines: readonly Segment[];
}

export type Segment = readonly [Vector3, Vector3];

export interface Snap {
  kind: SnapKind;
  point: Vector3;
  /** The ends of the edge, or of the line, that the point is of. */
  ends?: Segment;
}

/** The building's grid on plan. */
export interface GridOnPlan {
  crossings: readonly Vector2[];
  lines: readonly (readonly [Vector2, Vector2])[];
}

const REACH_PX = 14;
const LINE_PX = 8;
/** What lies so far behind the face under the cursor is on another side of the component. */
const BEHIND_M = 0.002;

interface Caught {
  snap: Snap;
  px: number;
}

/** Gathers what comes near the cursor; of each kind the nearest, and nothing of another side if there is one of this. */
class Catcher {
  private readonly best = new Map<SnapKind, Caught>();
  private readonly at: { x: number; y: number };
  private readonly facing: Vector3;

  constructor(
    private readonly hit: Hit,
    private readonly ray: Ray,
    private readonly pixelOf: (point: Vector3) => { x: number; y: number },
    private readonly there: (point: Vector3) => boolean,
  ) {
    this.at = pixelOf(hit.point);
    this.facing = hit.normal.clone();
    if (this.facing.dot(ray.direction) > 0) this.facing.negate();
  }

  private behind(point: Vector3): boolean {
    return point.clone().sub(this.hit.point).dot(this.facing) < -BEHIND_M;
  }

  private take(snap: Snap, reach: number, turned: number): void {
    const p = this.pixelOf(snap.point);
    const away = Math.hypot(p.x - this.at.x, p.y - this.at.y);
    if (!(away <= reach) || !this.there(snap.point)) return;
    const px = away + turned;
    if (px < (this.best.get(snap.kind)?.px ?? Number.POSITIVE_INFINITY))
      this.best.set(snap.kind, { snap, px });
  }

  /** A point of the component's surface. */
  point(kind: SnapKind, point: Vector3): void {
    this.take({ kind, point }, REACH_PX, this.behind(point) ? REACH_PX : 0);
  }

  /** A point within the component, or of the grid. */
  within(kind: SnapKind, point: Vector3): void {
    this.take({ kind, point }, REACH_PX, 0);
  }

  /** The point of a line that is nearest to the cursor. */
  line(kind: SnapKind, ends: Segment, inside = false): void {
    const point = new Vector3();
    this.ray.distanceSqToSegment(ends[0], ends[1], undefined, point);
    this.take({ kind, point, ends }, LINE_PX, !inside && this.behind(point) ? LINE_PX : 0);
  }

  first(order: readonly SnapKind[]): Snap | null {
    for (const kind of order) {
      const found = this.best.get(kind);
      if (found) return found.snap;
    }
    return null;
  }
}

/** The first of these that is near the cursor is caught. */
const ORDER: readonly SnapKind[] = ["corner", "middle", "crossing", "centre", "axis", "edge", "gridline"];

/** Where the cursor is on the screen, and which kinds of points are wanted beside points of faces. */
export interface Sheet {
  ray: Ray;
  pixelOf: (point: Vector3) => { x: number; y: number };
  takes?: readonly SnapKind[] | undefined;
}

/**
 * The exact point meant by a click on a component: what is nearest to the cursor on the screen of its corners, middles,
 * grid crossings and centres, else of its centre lines, edges and grid lines; else the point of the face itself.
 */
export function snapTo(
  hit: Hit,
  catches: Catches,
  grid: GridOnPlan,
  sheet: Sheet,
  there: (point: Vector3) => boolean = () => true,
): Snap {
  const catcher = new Catcher(hit, sheet.ray, sheet.pixelOf, there);
  for (const point of catches.corners) catcher.point("corner", point);
  for (const point of catches.middles) catcher.point("middle", point);
  for (const point of catches.centres) catcher.point("centre", point);
  for (const ends of catches.edges) catcher.line("edge", ends);
  for (const ends of catches.lines) {
    catcher.line("axis", ends, true);
    for (const end of ends) catcher.within("centre", end);
  }
  const { z } = hit.point;
  for (const { x, y } of grid.crossings) catcher.within("crossing", new Vector3(x, y, z));
  for (const [a, b] of grid.lines)
    catcher.line("gridline", [new Vector3(a.x, a.y, z), new Vector3(b.x, b.y, z)], true);
  const wanted = sheet.takes ? ORDER.filter((kind) => sheet.takes?.includes(kind)) : ORDER;
  const found = catcher.first(wanted) ?? { kind: "face", point: hit.point.clone() };
  const ends = found.kind === "middle" ? edgeAbout(found.point, catches.edges) : undefined;
  return ends ? { ...found, ends } : found;
}

function edgeAbout(middle: Vector3, edges: readonly Segment[]): Segment | undefined {
  const twice = middle.clone().multiplyScalar(2);
  return edges.find(([a, b]) => a.clone().add(b).distanceTo(twice) < 1e-6);
}

/** What is caught of a component as it is drawn, until it is known as the core has it. */
export function drawnCatches(pieces: Iterable<Piece>, component: number): Catches {
  const edges = [...edgesOf(pieces, component)];
  return {
    corners: edges.flat(),
    middles: edges.map(([a, b]) => a.clone().add(b).multiplyScalar(0.5)),
    centres: [],
    edges,
    lines: [],
  };
}

/** The axes of a grid on plan, and where they cross. */
export function gridOf(axes: readonly { ends: number[][] }[]): GridOnPlan {
  const lines = axes.map(({ ends }) => {
    const [a = [0, 0], b = [0, 0]] = ends;
    return [new Vector2(a[0], a[1]), new Vector2(b[0], b[1])] as const;
  });
  return { lines, crossings: crossingsOf(lines) };
}

function crossingsOf(lines: GridOnPlan["lines"]): Vector2[] {
  const found: Vector2[] = [];
  lines.forEach(([a, b], i) => {
    const way = b.clone().sub(a);
    for (const [c, d] of lines.slice(i + 1)) {
      const other = d.clone().sub(c);
      const area = way.cross(other);
      if (Math.abs(area) < 1e-6 * way.length() * other.length()) continue;
      const share = c.clone().sub(a).cross(other) / area;
      found.push(a.clone().addScaledVector(way, share));
    }
  });
  return found;
}

/** The ray of a view to a point that is seen in it. */
export function rayTo(point: Vector3, sight: Vector3, distance: number): Ray {
  return new Ray(point.clone().addScaledVector(sight, -Math.max(distance, 1e-6)), sight.clone());
}
