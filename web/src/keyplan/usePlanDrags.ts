import type { PointerEvent, RefObject, WheelEvent } from "react";
import type { Vector3 } from "three";
import type { PlanView, Point, Sheet } from "../open/plan/plan";
import type { useTurns } from "../open/plan/useInstrument";
import { useOpen } from "../open/useStage";
import { onDrawnButton } from "../parts/DrawnButton";
import { looking } from "../stage/pose";
import { enlarged } from "../style/lettering";

const CLICK_PX = 4;
const CLOSEST_PX_PER_M = 120;

export type PlanDrag =
  | { kind: "eye" }
  | { kind: "ring"; pivot: Vector3; tiltDeg: number }
  | { kind: "stand"; from: Point; start: Point; moved: boolean }
  | { kind: "sheet"; start: Point; view: PlanView };

interface Frame {
  svg: RefObject<SVGSVGElement | null>;
  view: RefObject<PlanView>;
  whole: PlanView;
  drag: RefObject<PlanDrag | null>;
  setOwn: (view: PlanView | null) => void;
  sheet: Sheet;
  middle: number;
  radius: number;
  north: number;
  level: number;
  turns: ReturnType<typeof useTurns>;
  /** The cursor is over a point of the plan, or beside it. */
  pointAt(p: Point | null): void;
}

/**
 * What dragging on the plan does: the ring turns, the eye is carried, a press elsewhere stands
 * there and a drag from it looks there; the right button moves the sheet, the wheel zooms it.
 */
export function usePlanDrags(frame: Frame) {
  const { svg, view, whole, drag, setOwn, sheet, middle, radius, north, level, turns } = frame;
  const { eye } = useOpen();
  const pixel = (event: { clientX: number; clientY: number }): Point => {
    const box = svg.current?.getBoundingClientRect();
    const scale = svg.current ? enlarged(svg.current) : 1;
    return { x: (event.clientX - (box?.left ?? 0)) / scale, y: (event.clientY - (box?.top ?? 0)) / scale };
  };
  const planPoint = (p: Point): Point =>
    sheet.from({
      x: view.current.x + (p.x - middle) / view.current.pxPerM,
      y: view.current.y + (p.y - middle) / view.current.pxPerM,
    });
  const bearingAt = (p: Point) => (Math.atan2(p.x - middle, middle - p.y) * 180) / Math.PI + north;

  const down = (event: PointerEvent<SVGSVGElement>) => {
    if (onDrawnButton(event.target)) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const p = pixel(event);
    const pose = eye.last;
    if (event.button === 2) drag.current = { kind: "sheet", start: p, view: view.current };
    else if (Math.hypot(p.x - middle, p.y - middle) > radius)
      drag.current = { kind: "ring", pivot: turns.about(), tiltDeg: pose ? looking(pose).tiltDeg : 0 };
    else if ((event.target as Element).closest("[data-eye]")) drag.current = { kind: "eye" };
    else drag.current = { kind: "stand", from: planPoint(p), start: p, moved: false };
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const d = drag.current;
    const p = pixel(event);
    if (!d) {
      frame.pointAt(Math.hypot(p.x - middle, p.y - middle) < radius ? planPoint(p) : null);
      return;
    }
    if (d.kind === "eye") turns.carry(planPoint(p));
    else if (d.kind === "ring") turns.drag(bearingAt(p), d.tiltDeg, d.pivot);
    else if (d.kind === "sheet")
      setOwn({
        ...d.view,
        x: d.view.x - (p.x - d.start.x) / d.view.pxPerM,
        y: d.view.y - (p.y - d.start.y) / d.view.pxPerM,
      });
    else if (d.moved || Math.hypot(p.x - d.start.x, p.y - d.start.y) > CLICK_PX) {
      d.moved = true;
      turns.standAndLook(d.from, planPoint(p), level);
    }
  };
  const up = () => {
    const d = drag.current;
    drag.current = null;
    if (d?.kind === "stand" && !d.moved) turns.stand(d.from, level);
  };
  const zoom = (event: WheelEvent) => {
    const p = pixel(event);
    const before = view.current;
    const next = Math.max(
      whole.pxPerM,
      Math.min(CLOSEST_PX_PER_M, before.pxPerM * 0.85 ** (event.deltaY / 100)),
    );
    if (next <= whole.pxPerM * 1.001) setOwn(null);
    else
      setOwn({
        pxPerM: next,
        x: before.x + (p.x - middle) * (1 / before.pxPerM - 1 / next),
        y: before.y + (p.y - middle) * (1 / before.pxPerM - 1 / next),
      });
  };
  return { down, move, up, zoom };
}
