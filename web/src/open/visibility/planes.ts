import type { Shapes } from "../../api/client";
import { MOST_PLANES } from "../../api/constants";

type Cut = Shapes["Cut"];

const PLANES: Readonly<Record<Cut["shape"]["kind"], number>> = { plane: 1, band: 2, box: 6 };

/** How many planes cut at once; those of cuts that are off do not count. */
export function planeCount(cuts: readonly Cut[]): number {
  return cuts.reduce((sum, cut) => sum + (cut.off ? 0 : PLANES[cut.shape.kind]), 0);
}

/** Why cuts are too many at once, in the core's words; empty where they are not. */
export function tooManyPlanes(cuts: readonly Cut[]): string {
  const count = planeCount(cuts);
  return count <= MOST_PLANES
    ? ""
    : `The cuts have ${count} planes and at most ${MOST_PLANES} cut at once. Switch one off or remove it.`;
}

/** Cuts of a view that was kept elsewhere: the first that can be drawn at once, the others switched off. */
export function withinPlanes(cuts: readonly Cut[]): readonly Cut[] {
  if (planeCount(cuts) <= MOST_PLANES) return cuts;
  let left = MOST_PLANES;
  return cuts.map((cut) => {
    const count = planeCount([cut]);
    if (count > left) return { ...cut, off: true };
    left -= count;
    return cut;
  });
}
