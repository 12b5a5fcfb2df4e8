import type { Federation } from "../api/client";
import { levelAt } from "../open/levels";
import type { KeyPlan } from "../open/plan/plan";
import { unitsNow } from "../open/units";
import { forward, type Pose } from "../stage/pose";

type Axis = KeyPlan["axes"][number];

/** As good as straight down, or square. */
const SQUARE = 0.9999;
const ON_LINE_M = 0.02;

/** Where an opened view is opened: over a storey, along a grid line, or somewhere else. */
export function openedAt(
  pose: Pose,
  levels: Federation["levels"],
  axes: readonly Axis[],
): { text: string; axis: Axis | null } {
  const f = forward(pose);
  const plane = pose.eye.clone().addScaledVector(f, pose.throughM);
  if (f.z < -SQUARE) {
    const level = levels[levelAt(levels, plane.z)];
    const overM = plane.z - (level?.elevation_m ?? 0);
    return {
      text: `Opened ${unitsNow().length(overM, 2)} above ${level?.name ?? "the origin"}.`,
      axis: null,
    };
  }
  const on = ([x = 0, y = 0]: number[]) =>
    Math.abs((x - plane.x) * f.x + (y - plane.y) * f.y) < ON_LINE_M * Math.hypot(f.x, f.y);
  const axis = Math.abs(f.z) < 1 - SQUARE ? axes.find((each) => each.ends.every(on)) : undefined;
  if (axis) return { text: `Opened along grid line ${axis.tag}.`, axis };
  return { text: "Opened: nearer components are not shown.", axis: null };
}
