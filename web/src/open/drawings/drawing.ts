import type { Federation, Shapes } from "../../api/client";
import type { Direction } from "../plan/directions";

/** What a drawing beside the stage shows: a storey from above, the building from a side, or what a cut leaves. */
export type Drawing =
  | { kind: "plan"; storey: string }
  | { kind: "elevation"; name: string; bearingDeg: number; tiltDeg: number }
  /** A level cut is drawn as its storey is. */
  | { kind: "cut"; cut: string; name: string; bearingDeg: number; tiltDeg: number; storey: string | null };

export function sameDrawing(a: Drawing | null, b: Drawing | null): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** A drawing's name as it stands on a sheet. */
export function spokenDrawing(drawing: Drawing): string {
  if (drawing.kind === "plan") return `Plan ${drawing.storey}`;
  return drawing.kind === "cut" ? `Cut ${drawing.name}` : drawing.name;
}

/** The direction in which a drawing is looked at; a plan has `upDeg` up its sheet. */
export function lookOf(drawing: Drawing, upDeg: number): Shapes["Look"] {
  if (drawing.kind === "plan") return { bearing_deg: upDeg, tilt_deg: 90 };
  const { bearingDeg, tiltDeg } = drawing;
  return { bearing_deg: Math.abs(tiltDeg) > 89.9 ? upDeg : bearingDeg, tilt_deg: tiltDeg };
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

/** The level that a plan or a level cut shows, or -1. */
export function levelOf(federation: Federation, drawing: Drawing): number {
  return drawing.kind === "elevation" ? -1 : federation.levels.findIndex((l) => l.name === drawing.storey);
}
