import type { Federation, Shapes } from "../../api/client";
import { fromSegment } from "../../stage/geometry/onScreen";
import { levelAt } from "../levels";
import { shifted } from "../origin";

export type KeyPlan = Shapes["KeyPlan"];
type Line = readonly (readonly number[])[];

/** Where the plan stands in its frame: pixels a metre, and the point of the plan at the frame's middle. */
export interface PlanView {
  pxPerM: number;
  x: number;
  y: number;
}

export interface Point {
  x: number;
  y: number;
}

/** A turn of the plan about the project's origin, so that a bearing points up the sheet. */
export class Sheet {
  private readonly c: number;
  private readonly s: number;

  constructor(readonly upDeg: number) {
    const turn = (upDeg * Math.PI) / 180;
    this.c = Math.cos(turn);
    this.s = Math.sin(turn);
  }

  /** Project coordinates to the sheet: metres, y downwards. */
  onto(p: Point): Point {
    return { x: this.c * p.x - this.s * p.y, y: -(this.s * p.x + this.c * p.y) };
  }

  /** The sheet's metres back to project coordinates. */
  from(p: Point): Point {
    return { x: this.c * p.x - this.s * p.y, y: -this.s * p.x - this.c * p.y };
  }

  path(line: Line): string {
    return line
      .map(([x = 0, y = 0], i) => {
        const p = this.onto({ x, y });
        return `${i ? "L" : "M"}${p.x.toFixed(3)} ${p.y.toFixed(3)}`;
      })
      .join("");
  }
}

/** Somebody who stands on the roof is not outside. */
const OVER_M = 3;

/** A level with this share of the rooms of the fullest one says as much. */
const AS_FULL = 0.6;

/** The level whose plan says most of a building: of those with most rooms, the one nearest to the ground. */
export function tellingLevel({ levels, rooms }: Pick<Federation, "levels" | "rooms">): number {
  const counts = levels.map((_, i) => rooms.filter((room) => room.level === i).length);
  const full = AS_FULL * Math.max(...counts);
  const near = (i: number) => Math.abs(levels[i]?.elevation_m ?? 0);
  return [...counts.keys()].filter((i) => (counts[i] ?? 0) >= full).sort((a, b) => near(a) - near(b))[0] ?? 0;
}

type Seen = Pick<Federation, "levels" | "rooms" | "bounds_m" | "origin_m">;
type Eye = { x: number; y: number; z: number };

/** The storey that is meant by itself: the one the eye is on, or, seen from outside, the one that says most. */
export function storeyOf(federation: Seen, eye: Eye): { level: number; within: boolean } {
  const [low, high] = federation.bounds_m ?? [];
  const at = shifted([eye.x, eye.y, eye.z], federation.origin_m);
  const within =
    low !== undefined &&
    high !== undefined &&
    at.every((c, axis) => c >= (low[axis] ?? 0) && c <= (high[axis] ?? 0) + OVER_M);
  return within
    ? { level: levelAt(federation.levels, eye.z), within: true }
    : { level: tellingLevel(federation), within: false };
}

function inside(line: Line, p: Point): boolean {
  let odd = false;
  for (let i = 0, j = line.length - 1; i < line.length; j = i++) {
    const [xi = 0, yi = 0] = line[i] ?? [];
    const [xj = 0, yj = 0] = line[j] ?? [];
    if (yi > p.y !== yj > p.y && p.x < ((xj - xi) * (p.y - yi)) / (yj - yi) + xi) odd = !odd;
  }
  return odd;
}

/** Who stands at a window or in a doorway, so far beyond the edge of a room, is still in it. */
const AT_THE_EDGE_M = 0.4;

/** The room of a plan that a point lies in, holes left out, or at whose edge; null in none. */
export function roomAt(plan: KeyPlan, p: Point): KeyPlan["rooms"][number] | null {
  const within = plan.rooms.find((room) => room.outlines.filter((ring) => inside(ring, p)).length % 2 === 1);
  if (within) return within;
  const away = plan.rooms.map((room) => Math.min(...room.outlines.map((ring) => offRing(ring, p))));
  const least = Math.min(...away);
  return (least <= AT_THE_EDGE_M && plan.rooms[away.indexOf(least)]) || null;
}

/** How far a point is from a ring. */
function offRing(ring: readonly (readonly number[])[], p: Point): number {
  const corners = ring.map(([x = 0, y = 0]) => ({ x, y }));
  return Math.min(
    ...corners.map((corner, k) => fromSegment(p, corner, corners[(k + 1) % corners.length] ?? corner)),
  );
}

/** The view that shows all of a plan within a circle of so many pixels. */
export function wholePlan(plan: KeyPlan, sheet: Sheet, radiusPx: number): PlanView {
  const points = [...plan.solid, ...plan.thin, ...plan.rooms.flatMap((r) => r.outlines)].flat();
  const placed = points.map(([x = 0, y = 0]) => sheet.onto({ x, y }));
  if (!placed.length) return { pxPerM: 4, x: 0, y: 0 };
  const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  const [x, y] = [middle(placed.map((p) => p.x)), middle(placed.map((p) => p.y))];
  const reach = Math.max(1, ...placed.map((p) => Math.hypot(p.x - x, p.y - y)));
  return { pxPerM: radiusPx / reach, x, y };
}

/** Whether a point lies on the plan, or not far from it. */
export function onPlan(plan: KeyPlan, p: Point, marginM: number): boolean {
  const points = [...plan.solid, ...plan.rooms.flatMap((r) => r.outlines)].flat();
  const within = (axis: 0 | 1, at: number) => {
    const values = points.map((q) => q[axis] ?? 0);
    return at >= Math.min(...values) - marginM && at <= Math.max(...values) + marginM;
  };
  return points.length > 0 && within(0, p.x) && within(1, p.y);
}
