import { type PointerEvent, useRef } from "react";
import { carriedTo, endDrag, useCutting, useEndOfDrag, withDragged } from "../open/cuts/cutting";
import { type Cut, isLevel, type Side, sidesOf, toMilli } from "../open/cuts/shape";
import { onStage } from "../open/origin";
import type { Sheet } from "../open/plan/plan";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { tone } from "../style/theme";

const FAR_M = 500;
/** A line is taken hold of within so many pixels. */
const GRIP_PX = 14;

/** The lines in which cuts meet the key plan; each is dragged across itself. */
export function CutsOnPlan({ sheet }: { sheet: Sheet }) {
  const cuts = useViewState((s) => s.cuts);
  const dragged = useCutting((s) => s.dragged);
  return withDragged(cuts, dragged)
    .filter((cut) => !cut.off && !isLevel(cut.shape))
    .flatMap((cut) =>
      sidesOf(cut.shape).map((side, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the sides of a cut keep their order
        <OnPlan key={`${cut.id}/${k}`} cut={cut} side={side} nth={k} sheet={sheet} />
      )),
    );
}

function OnPlan({ cut, side, nth, sheet }: { cut: Cut; side: Side; nth: number; sheet: Sheet }) {
  const { federation } = useOpen();
  const held = useRef<{ from: Cut; x: number; y: number } | null>(null);
  useEndOfDrag(held);
  const [nx = 0, ny = 0] = side.normal;
  const long = Math.hypot(nx, ny);
  if (long < 0.1) return null;
  // Of a box the side itself, of a plane its whole line.
  const reach = cut.shape.kind === "box" ? (cut.shape.size_m[nth < 2 ? 1 : 0] ?? 0) / 2 : FAR_M;
  const { x, y } = onStage(side.point_m, federation.origin_m);
  const [dx, dy] = [(-ny / long) * reach, (nx / long) * reach];
  const d = sheet.path([
    [x - dx, y - dy],
    [x + dx, y + dy],
  ]);
  /** Where the pointer is on plan, about the origin. */
  const at = (event: PointerEvent<SVGPathElement>) => {
    const to = event.currentTarget.getScreenCTM()?.inverse();
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(to);
    return sheet.from(p);
  };
  const down = (event: PointerEvent<SVGPathElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { from: cut, ...at(event) };
  };
  const move = (event: PointerEvent<SVGPathElement>) => {
    const { current } = held;
    if (!current) return;
    const now = at(event);
    // A plane that leans goes so far along its normal that its line goes there.
    const by = toMilli(((now.x - current.x) * nx + (now.y - current.y) * ny) / long) * long;
    useCutting.setState({ dragged: carriedTo(federation, current.from, nth, by) });
  };
  const end = (keep: boolean) => {
    if (!held.current) return;
    held.current = null;
    endDrag(keep);
  };
  return (
    <g>
      <path
        data-testid="cut-on-plan"
        d={d}
        fill="none"
        stroke={tone.ink}
        strokeWidth={2.4}
        strokeDasharray="9 3 2 3"
        vectorEffect="non-scaling-stroke"
        style={{ pointerEvents: "none" }}
      />
      {/* biome-ignore lint/a11y/useSemanticElements: a line of a drawing is no button of its own */}
      <path
        data-testid="cut-on-plan-grip"
        role="button"
        tabIndex={-1}
        aria-label={`Cut ${cut.name}; drag it across the plan`}
        d={d}
        fill="none"
        stroke="transparent"
        strokeWidth={GRIP_PX}
        vectorEffect="non-scaling-stroke"
        style={{ pointerEvents: "stroke", cursor: "move", touchAction: "none" }}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={(event) => {
          event.stopPropagation();
          end(true);
        }}
        onPointerCancel={() => end(false)}
        onClick={(event) => event.stopPropagation()}
      />
    </g>
  );
}
