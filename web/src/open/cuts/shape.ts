import { Vector3 } from "three";
import type { Federation, Shapes } from "../../api/client";
import { LEAST_CUT_M } from "../../api/constants";
import { type ClipPlane, clipPlane } from "../../stage/clips";
import { overStorey } from "../levels";
import { onStage } from "../origin";
import { unitsNow } from "../units";

export type Cut = Shapes["Cut"];
export type CutShape = Cut["shape"];

const MILLI = 1000;
const LEVEL = 1 - 1e-9;

type Point = readonly number[];

/** To the millimetre, as cuts are typed and dragged. */
export function toMilli(metres: number): number {
  return Math.round(metres * MILLI) / MILLI;
}

export function added(point: Point, way: Point, by: number): number[] {
  return point.map((c, axis) => c + (way[axis] ?? 0) * by);
}

/** The building's east and north as a box has them, and up. */
function boxAxes(bearingDeg: number): [number[], number[], number[]] {
  const angle = (bearingDeg * Math.PI) / 180;
  return [
    [Math.cos(angle), -Math.sin(angle), 0],
    [Math.sin(angle), Math.cos(angle), 0],
    [0, 0, 1],
  ];
}

/** The eight corners of a box. */
export function cornersOf({ centre_m, size_m, bearing_deg }: Extract<CutShape, { kind: "box" }>): number[][] {
  return boxAxes(bearing_deg).reduce<number[][]>(
    (points, axis, k) =>
      points.flatMap((p) => [-0.5, 0.5].map((half) => added(p, axis, half * (size_m[k] ?? 0)))),
    [[...centre_m]],
  );
}

/** A plane of a cut: its outward normal and a point of it, in project coordinates. */
export interface Side {
  normal: number[];
  point_m: number[];
}

/**
 * The planes of a cut in the order of the core (core/cutting/cuts.planes_of), which the stage needs while one of them is
 * dragged; what counts is the core's.
 */
export function sidesOf(shape: CutShape): Side[] {
  if (shape.kind === "box") {
    return boxAxes(shape.bearing_deg).flatMap((axis, k) =>
      [1, -1].map((sign) => {
        const normal = axis.map((c) => c * sign);
        return { normal, point_m: added(shape.centre_m, normal, (shape.size_m[k] ?? 0) / 2) };
      }),
    );
  }
  const { point_m } = shape;
  const length = Math.hypot(...shape.normal) || 1;
  const normal = shape.normal.map((c) => c / length);
  if (shape.kind === "plane") return [{ normal, point_m }];
  const below = normal.map((c) => -c);
  return [
    { normal, point_m },
    { normal: below, point_m: added(point_m, below, shape.thick_m) },
  ];
}

/** The same plane as the stage cuts by it, about the federation's origin. */
export function clipOf(side: Side, origin_m: Point): ClipPlane {
  const point = onStage(side.point_m, origin_m);
  return clipPlane(new Vector3().fromArray(side.normal), point);
}

/** A cut with one of its planes moved along its normal. */
export function moved(shape: CutShape, side: number, by: number): CutShape {
  const at = sidesOf(shape)[side];
  if (!at) return shape;
  if (shape.kind === "box") {
    const axis = Math.floor(side / 2);
    const size = shape.size_m[axis] ?? 0;
    const next = Math.max(size + by, LEAST_CUT_M);
    const grown = next - size;
    return {
      ...shape,
      size_m: shape.size_m.map((s, k) => (k === axis ? next : s)),
      centre_m: added(shape.centre_m, at.normal, grown / 2),
    };
  }
  if (shape.kind === "plane") return { ...shape, point_m: added(shape.point_m, at.normal, by) };
  const thick_m = Math.max(shape.thick_m + by, LEAST_CUT_M);
  const grown = thick_m - shape.thick_m;
  return side === 0
    ? { ...shape, thick_m, point_m: added(shape.point_m, at.normal, grown) }
    : { ...shape, thick_m };
}

/** A plane or a band turned about a point of its plane, so that it faces another way; a box stays as it is. */
export function turnedTo(shape: CutShape, normal: readonly number[], about_m: readonly number[]): CutShape {
  return shape.kind === "box" ? shape : { ...shape, normal: [...normal], point_m: [...about_m] };
}

const DEG = 180 / Math.PI;

/** Which way a normal faces, clockwise from a north, and how far it leans from upright: 90 degrees is level, facing up. */
export function facingOf(
  normal: readonly number[],
  northDeg: number,
): { facingDeg: number; leanDeg: number } {
  const [x = 0, y = 0, z = 0] = normal;
  const facing = Math.hypot(x, y) < 1e-9 ? 0 : Math.atan2(x, y) * DEG - northDeg;
  return {
    facingDeg: ((facing % 360) + 360) % 360,
    leanDeg: Math.atan2(z, Math.hypot(x, y)) * DEG,
  };
}

/** The normal that faces so. */
export function normalOf({ facingDeg, leanDeg }: ReturnType<typeof facingOf>, northDeg: number): number[] {
  const [turn, lean] = [(facingDeg + northDeg) / DEG, leanDeg / DEG];
  return [Math.sin(turn) * Math.cos(lean), Math.cos(turn) * Math.cos(lean), Math.sin(lean)].map(
    (c) => Math.round(c * 1e12) / 1e12,
  );
}

/** A plane or a band seen from its other side; a box has none. */
export function flipped(shape: CutShape): CutShape {
  if (shape.kind === "box") return shape;
  const normal = shape.normal.map((c) => -c || 0);
  if (shape.kind === "plane") return { ...shape, normal };
  return { ...shape, normal, point_m: added(shape.point_m, shape.normal, -shape.thick_m) };
}

/** Whether a cut lies level, so that it has a height. */
export function isLevel(shape: CutShape): boolean {
  return shape.kind !== "box" && Math.abs(shape.normal[2] ?? 0) / Math.hypot(...shape.normal) > LEVEL;
}

/** What a height is called: its storey, and so much over it. */
export function spokenHeight(
  federation: Pick<Federation, "levels">,
  height_m: number,
  units = unitsNow(),
): string {
  const { name, overM } = overStorey(federation.levels, height_m);
  return `${name} ${overM < 0 ? "-" : "+"} ${units.length(Math.abs(toMilli(overM)), 2)}`;
}
