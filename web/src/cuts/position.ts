import type { Federation, Shapes } from "../api/client";
import { facingOf, type Side } from "../open/cuts/shape";
import { overStorey } from "../open/levels";
import { windOf } from "./axes";

type Axis = Pick<Shapes["PlanAxis"], "tag" | "ends">;

/** Where a plane stands as people say it: so far from what, and which way along its normal that grows. */
export interface Position {
  /** What follows the figure: "above Level 01", "north of grid A". */
  from: string;
  distanceM: number;
  /** 1 where the distance grows along the plane's normal, -1 where against it. */
  along: 1 | -1;
}

/** Planes that lean less than this from upright or level, or from a grid line, are taken as they look; a sine. */
const SAME = 1e-3;

/**
 * A level plane is so high above its storey; an upright one beside a parallel grid line so far from the nearest of those;
 * any other so far from the middle of the building.
 */
export function positionOf(
  side: Side,
  federation: Pick<Federation, "levels" | "bounds_m" | "building_north_deg" | "origin_m">,
  axes: readonly Axis[],
): Position {
  const [x = 0, y = 0, z = 0] = side.normal;
  const [px = 0, py = 0, pz = 0] = side.point_m;
  const flat = Math.hypot(x, y);
  if (flat < SAME) {
    const { name, overM } = overStorey(federation.levels, pz);
    return { from: `above ${name}`, distanceM: overM, along: z > 0 ? 1 : -1 };
  }
  const { facingDeg } = facingOf(side.normal, federation.building_north_deg);
  // From south to north and from west to east, whichever side is seen.
  const along = facingDeg < 134.9 || facingDeg > 314.9 ? 1 : -1;
  const wind = windOf(along > 0 ? facingDeg : facingDeg + 180);
  const [nx, ny] = [(along * x) / flat, (along * y) / flat];
  if (Math.abs(z) < SAME) {
    // A plan's lines are about the origin.
    const [ox = 0, oy = 0] = federation.origin_m;
    const beside = axes.flatMap(({ tag, ends: [[ax = 0, ay = 0] = [], [bx = 0, by = 0] = []] }) => {
      const length = Math.hypot(bx - ax, by - ay);
      const across = length && Math.abs((bx - ax) * nx + (by - ay) * ny) / length;
      return length && across < SAME ? [{ tag, distanceM: (px - ox - ax) * nx + (py - oy - ay) * ny }] : [];
    });
    const [nearest] = beside.sort((a, b) => Math.abs(a.distanceM) - Math.abs(b.distanceM));
    if (nearest) return { from: `${wind} of grid ${nearest.tag}`, distanceM: nearest.distanceM, along };
  }
  const [low, high] = federation.bounds_m ?? [];
  const middle = [0, 1, 2].map((k) => ((low?.[k] ?? 0) + (high?.[k] ?? 0)) / 2);
  const size = Math.hypot(x, y, z);
  const distanceM =
    (along * (x * (px - (middle[0] ?? 0)) + y * (py - (middle[1] ?? 0)) + z * (pz - (middle[2] ?? 0)))) /
    size;
  return { from: `${wind} of the middle`, distanceM, along };
}
