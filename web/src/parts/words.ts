import { grouped } from "../api/locale";
import type { SnapKind } from "../stage/geometry/snapping";

/** A number with what it counts: "1 model", "2 models", "1,224 components". */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${grouped(count)} ${count === 1 ? one : many}`;
}

/** What kind of point the cursor catches. */
export const CAUGHT: Readonly<Record<SnapKind, string>> = {
  corner: "corner",
  middle: "middle of an edge",
  crossing: "grid crossing",
  centre: "centre",
  axis: "centre line",
  edge: "edge",
  gridline: "grid line",
  face: "face",
};

export const A_CAUGHT: Readonly<Record<SnapKind, string>> = {
  corner: "a corner",
  middle: "the middle of an edge",
  crossing: "a grid crossing",
  centre: "a centre",
  axis: "a centre line",
  edge: "an edge",
  gridline: "a grid line",
  face: "a point of the face",
};
