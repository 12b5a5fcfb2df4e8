import type { Sheet } from "../keyplan/plan";
import { useSeen } from "../open/seen";
import { useOpen } from "../open/useStage";
import { tone } from "../tone";
import { useCutting, withDragged } from "./cutting";
import { isLevel, sidesOf } from "./shape";

const FAR_M = 500;

/** The lines in which cuts meet the key plan. */
export function CutsOnPlan({ sheet }: { sheet: Sheet }) {
  const { federation } = useOpen();
  const cuts = useSeen((s) => s.cuts);
  const dragged = useCutting((s) => s.dragged);
  const [ox = 0, oy = 0] = federation.origin_m;
  const lines = withDragged(cuts, dragged)
    .filter((cut) => !cut.off && !isLevel(cut.shape))
    .flatMap((cut) =>
      sidesOf(cut.shape).flatMap(({ normal, point_m }, k) => {
        const [nx = 0, ny = 0] = normal;
        const long = Math.hypot(nx, ny);
        if (long < 0.1) return [];
        // Of a box the side itself, of a plane its whole line.
        const reach = cut.shape.kind === "box" ? (cut.shape.size_m[k < 2 ? 1 : 0] ?? 0) / 2 : FAR_M;
        const [x, y] = [(point_m[0] ?? 0) - ox, (point_m[1] ?? 0) - oy];
        const [dx, dy] = [(-ny / long) * reach, (nx / long) * reach];
        return [
          {
            key: `${cut.id}/${k}`,
            d: sheet.path([
              [x - dx, y - dy],
              [x + dx, y + dy],
            ]),
          },
        ];
      }),
    );
  return lines.map(({ key, d }) => (
    <path
      key={key}
      data-testid="cut-on-plan"
      d={d}
      fill="none"
      stroke={tone.ink}
      strokeWidth={2.4}
      strokeDasharray="9 3 2 3"
      vectorEffect="non-scaling-stroke"
      style={{ pointerEvents: "none" }}
    />
  ));
}
