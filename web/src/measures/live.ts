import { unitsNow } from "../open/units";
import { Dimensions } from "../stage/layers/dimensions";
import type { Stage } from "../stage/stage";
import type { Aim } from "../stage/tools/tool";
import { useMeasuring } from "./measuring";

/** Draw the points clicked so far and the way to the one under the cursor, each leg with its length. */
export function showLive(stage: Stage | null, to: Aim | null): void {
  const { aims } = useMeasuring.getState();
  const points = [...aims, ...(to && aims.length ? [to] : [])].map((aim) => aim.point);
  const units = unitsNow();
  stage?.layer(Dimensions).showLive(
    points.slice(1).map((point, k) => {
      const from = points[k] ?? point;
      return { line: [from, point], text: units.length(from.distanceTo(point)), chosen: true };
    }),
  );
}
