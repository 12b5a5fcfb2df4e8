import type { Federation } from "../api/client";
import { LEAST_CUT_M, TOP_STOREY_M } from "../api/constants";
import { type CutShape, moved, sidesOf } from "../open/cuts/shape";
import { levelAt } from "../open/levels";

type Box = Extract<CutShape, { kind: "box" }>;

/** More than the margin around a room and the wall, or the floor, beyond it. */
const THROUGH_M = 0.75;

/** A box whose side towards the eye goes through what stands there, so that one looks in. */
export function openedTowards(shape: CutShape, sight: readonly number[]): CutShape {
  const against = sidesOf(shape).map(
    ({ normal }) => -normal.reduce((sum, c, k) => sum + c * (sight[k] ?? 0), 0),
  );
  const side = against.indexOf(Math.max(...against));
  return moved(shape, side, -THROUGH_M);
}

/** A box along the building's axes between two corners, from the floor of the lower one's storey to the next. */
export function boxBetween(
  federation: Pick<Federation, "levels" | "building_north_deg">,
  a: readonly number[],
  b: readonly number[],
): Box | null {
  const north = (federation.building_north_deg * Math.PI) / 180;
  const [dx, dy] = [(b[0] ?? 0) - (a[0] ?? 0), (b[1] ?? 0) - (a[1] ?? 0)];
  const wide = Math.abs(dx * Math.cos(north) - dy * Math.sin(north));
  const deep = Math.abs(dx * Math.sin(north) + dy * Math.cos(north));
  if (wide < LEAST_CUT_M || deep < LEAST_CUT_M) return null;
  const lower = Math.min(a[2] ?? 0, b[2] ?? 0);
  const at = Math.max(0, levelAt(federation.levels, lower));
  const low = federation.levels[at]?.elevation_m ?? lower;
  const high = Math.max(federation.levels[at + 1]?.elevation_m ?? low + TOP_STOREY_M, low + LEAST_CUT_M);
  return {
    kind: "box",
    centre_m: [((a[0] ?? 0) + (b[0] ?? 0)) / 2, ((a[1] ?? 0) + (b[1] ?? 0)) / 2, (low + high) / 2],
    size_m: [wide, deep, high - low],
    bearing_deg: federation.building_north_deg,
  };
}
