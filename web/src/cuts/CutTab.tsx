import { type KeyboardEvent, type PointerEvent, useEffect, useLayoutEffect, useRef } from "react";
import type { Vector3 } from "three";
import { carriedTo, endDrag, keepMoved, useCutting, useEndOfDrag } from "../open/cuts/cutting";
import { type Cut, isLevel, sidesOf } from "../open/cuts/shape";
import { useLetteringShare } from "../open/lettering";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { anchorOn } from "./anchor";
import { type Standing, shiftApart } from "./apart";
import { CutSign, TAB_PX } from "./CutSign";
import { draggedTo, type Held, LEAST_PX, leverOf, takeHold, tilted } from "./tabDrag";

const STEP_M = 0.05;
const FINE_M = 0.01;
const STEP_DEG = 5;
const FINE_DEG = 1;
const EDGE_PX = 8;
/** So far beside its middle a tab has the grip that tilts it. */
const GRIP_PX = 26;
/** The side of a box that looks up. */
export const TOP = 4;

/** One plane's tab: a short heavy line in the plane with a label, which is dragged along the normal. */
export function CutTab(props: {
  cut: Cut;
  side: number;
  normal: Vector3;
  point: Vector3;
  /** The how manieth of all tabs it is. */
  order: number;
  /** Where the tabs stand. */
  standing: Standing;
}) {
  const { cut, side, normal, point, order, standing } = props;
  const { federation, stage, eye } = useOpen();
  const tab = useRef<HTMLButtonElement>(null);
  const anchor = useRef<Vector3 | null>(null);
  const drag = useRef<Held | null>(null);
  const share = useLetteringShare();
  const [tabPx, gripPx] = [TAB_PX * share, GRIP_PX * share];
  const latest = useRef({ normal, point });
  latest.current = { normal, point };

  // The second side of a band turns with its first.
  const leans = cut.shape.kind !== "box" && side === 0;
  const place = () => {
    const [view, own] = [stage(), tab.current];
    if (!view || !own) return;
    const { normal: up, point: on } = latest.current;
    const { width, height } = view.main.size;
    if (drag.current && anchor.current)
      anchor.current.addScaledVector(up, on.clone().sub(anchor.current).dot(up));
    else if (cut.shape.kind === "box") anchor.current = on.clone();
    else
      anchor.current = anchorOn(
        latest.current,
        view.building.bounds,
        { size: { width, height }, rayAtPixel: (x, y) => view.main.rayAtPixel(x, y) },
        order,
      );
    const at = view.main.pixelOf(anchor.current);
    const beyond = view.main.pixelOf(anchor.current.clone().add(up));
    const x = Math.max(EDGE_PX, Math.min(width - own.offsetWidth - EDGE_PX, at.x));
    const y = Math.max(EDGE_PX + tabPx / 2, Math.min(height - tabPx, at.y));
    const leftPx = x - gripPx;
    const area = {
      left: leftPx,
      top: y - (leans ? gripPx + tabPx / 2 : tabPx / 2),
      width: own.offsetWidth + gripPx,
      height: leans ? gripPx + tabPx : tabPx,
    };
    // What is dragged stays under the cursor; the tabs that come after it keep clear of it.
    const shift = drag.current ? 0 : shiftApart(area, standing.before(order), height);
    standing.put(order, at.before ? { ...area, top: area.top + shift } : null);
    own.style.transform = `translate(${x}px, ${y + shift}px) translateY(-50%)`;
    own.style.visibility = at.before ? "visible" : "hidden";
    const [right, down] = [beyond.x - at.x, beyond.y - at.y];
    // Seen along its normal, up and down move it.
    const turn = Math.hypot(right, down) < LEAST_PX ? -Math.PI / 2 : Math.atan2(down, right);
    own.style.setProperty("--way", `${Number.isFinite(turn) ? turn : 0}rad`);
  };
  const latestPlace = useRef(place);
  latestPlace.current = place;
  useEffect(() => eye.listen(() => latestPlace.current()), [eye]);
  useLayoutEffect(() => latestPlace.current());
  useLayoutEffect(() => () => standing.put(order, null), [standing, order]);

  const busy = useTools((s) => s.tool !== null);
  const down = (event: PointerEvent<HTMLButtonElement>) => {
    const view = stage();
    if (!view || !anchor.current || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const tilting = event.target instanceof Element && event.target.closest("[data-grip]") !== null;
    const held = { cut, side, normal, anchor: anchor.current };
    drag.current = takeHold(view.main, { x: event.clientX, y: event.clientY }, held, tilting);
    useCutting.setState({ opened: cut.id });
    useSession.getState().open("cuts");
  };
  const move = (event: PointerEvent<HTMLButtonElement>) => {
    if (!drag.current) return;
    const at = { x: event.clientX, y: event.clientY };
    useCutting.setState({ dragged: draggedTo(federation, drag.current, at) });
  };
  const end = (keep: boolean) => {
    if (!drag.current) return;
    drag.current = null;
    endDrag(keep);
  };
  useEndOfDrag(drag);
  const key = (event: KeyboardEvent) => {
    if (event.key === "Escape") return end(false);
    const way = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
    const tilt = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    const view = stage();
    if (!(way || tilt) || !view) return;
    event.preventDefault();
    event.stopPropagation();
    if (tilt) {
      if (!leans || !anchor.current) return;
      const by = { normal, lever: leverOf(view.main, anchor.current, normal), about: anchor.current };
      return keepMoved(tilted(federation, cut, by, tilt * (event.shiftKey ? FINE_DEG : STEP_DEG)));
    }
    keepMoved(carriedTo(federation, cut, side, way * (event.shiftKey ? FINE_M : STEP_M)));
  };
  const several = sidesOf(cut.shape).length > 1;
  // Of several, the side that looks up carries the name.
  const named = cut.shape.kind === "box" ? TOP : 0;
  return (
    <button
      ref={tab}
      type="button"
      data-testid="cut-tab"
      data-side={side}
      aria-label={`Cut ${cut.name}${several ? `, side ${side + 1}` : ""}; drag along its normal, or use the up and down arrows${leans ? "; drag its grip to tilt it, or use the left and right arrows" : ""}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => end(true)}
      onPointerCancel={() => end(false)}
      onKeyDown={key}
      style={{
        position: "absolute",
        left: 0,
        top: 0,
        minHeight: tabPx,
        display: "flex",
        alignItems: "center",
        gap: 6,
        padding: "0 8px 0 0",
        border: 0,
        background: "transparent",
        cursor: "grab",
        touchAction: "none",
        // A tool in hand takes every drag and click on the stage.
        pointerEvents: busy ? "none" : "auto",
        opacity: busy ? 0.55 : 1,
        zIndex: 1,
      }}
    >
      <CutSign
        share={share}
        leans={leans}
        figures={isLevel(cut.shape)}
        name={side === named ? cut.name || "Cut" : ""}
      />
    </button>
  );
}
