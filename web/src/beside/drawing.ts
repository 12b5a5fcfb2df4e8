import type { Federation, Shapes } from "../api/client";
import type { Direction } from "../keyplan/directions";

/** What a drawing beside the stage shows: a storey from above, or the building from a side. */
export type Drawing =
  | { kind: "plan"; storey: string }
  | { kind: "elevation"; name: string; bearingDeg: number; tiltDeg: number };

export function sameDrawing(a: Drawing | null, b: Drawing | null): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** A drawing's name as it stands on a sheet. */
export function spokenDrawing(drawing: Drawing): string {
  return drawing.kind === "plan" ? `Plan ${drawing.storey}` : drawing.name;
}

/** The direction in which a drawing is looked at; a plan has `upDeg` up its sheet. */
export function lookOf(drawing: Drawing, upDeg: number): Shapes["Look"] {
  return drawing.kind === "plan"
    ? { bearing_deg: upDeg, tilt_deg: 90 }
    : { bearing_deg: drawing.bearingDeg, tilt_deg: drawing.tiltDeg };
}

/** A plan of each storey, the highest first, as a section of the building has them. */
export function plansOf(federation: Federation): Drawing[] {
  return federation.levels
    .filter((level) => level.plan)
    .map<Drawing>((level) => ({ kind: "plan", storey: level.name }))
    .reverse();
}

/** The elevations of a building's four sides. */
export function elevationsOf(directions: readonly Direction[], frontDeg: number): Drawing[] {
  return directions
    .filter((d) => d.tilt_deg === 0 && !d.name.includes(" "))
    .map((d) => ({
      kind: "elevation",
      name: `${d.name[0]?.toUpperCase()}${d.name.slice(1)} elevation`,
      bearingDeg: (((frontDeg + d.bearing_deg) % 360) + 360) % 360,
      tiltDeg: 0,
    }));
}

/** The level that a plan shows, or -1. */
export function levelOf(federation: Federation, drawing: Drawing): number {
  return drawing.kind === "plan" ? federation.levels.findIndex((l) => l.name === drawing.storey) : -1;
}
