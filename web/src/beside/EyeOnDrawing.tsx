import { type PointerEvent, useEffect, useRef } from "react";
import { type Drawing, levelOf } from "../open/drawings/drawing";
import { offStorey } from "../open/levels";
import { announce } from "../open/trail/cause";
import { useOpen } from "../open/useStage";
import { forward, type Pose } from "../stage/pose";
import type { DrawingKind } from "../stage/view";
import { tone } from "../style/theme";
import { aimed, shiftOn } from "./sheet";

const SIGHT_PX = 54;
const EDGE_PX = 10;

/** What is dragged: the eye, what it looks at, or both together. */
type Part = "eye" | "target" | "both";

/** The stage's eye and target on the drawing, to be dragged there while the stage follows. */
export function EyeOnDrawing({ of, drawing }: { of: DrawingKind; drawing: Drawing }) {
  const { federation, stage, eye, drawn } = useOpen();
  const level = levelOf(federation, drawing);
  const svg = useRef<SVGSVGElement>(null);
  const marks = useRef<Partial<Record<Part | "sight", SVGGElement>>>({});
  const drag = useRef<{ part: Part; x: number; y: number; pose: Pose } | null>(null);

  useEffect(() => {
    const place = () => {
      const [view, pose] = [stage()?.drawings[of], eye.last];
      const own = svg.current;
      if (!view || !pose || !own) return;
      const { width, height } = own.getBoundingClientRect();
      const at = view.pixelOf(pose.eye);
      const to = view.pixelOf(pose.target);
      const look = view.pixelOf(pose.eye.clone().add(forward(pose)));
      const turn = (Math.atan2(look.y - at.y, look.x - at.x) * 180) / Math.PI;
      // An eye beyond the sheet waits at its edge.
      const x = Math.max(EDGE_PX, Math.min(width - EDGE_PX, at.x));
      const y = Math.max(EDGE_PX, Math.min(height - EDGE_PX, at.y));
      const beyond = x !== at.x || y !== at.y;
      const { eye: eyeMark, target, both, sight } = marks.current;
      eyeMark?.setAttribute("transform", `translate(${x} ${y}) rotate(${turn})`);
      eyeMark?.setAttribute("opacity", beyond ? "0.55" : "1");
      const off = level >= 0 && offStorey(federation.levels, level, pose.eye.z) !== "no";
      eyeMark?.setAttribute("data-off", off ? "yes" : "no");
      sight?.setAttribute("transform", `translate(${x} ${y}) rotate(${turn})`);
      sight?.setAttribute("visibility", beyond ? "hidden" : "visible");
      target?.setAttribute("transform", `translate(${to.x} ${to.y})`);
      for (const line of both?.querySelectorAll("path") ?? [])
        line.setAttribute("d", `M${x} ${y} L${to.x} ${to.y}`);
    };
    const stops = [eye.listen(place), drawn[of].listen(place)];
    return () => {
      for (const stop of stops) stop();
    };
  }, [eye, drawn, of, stage, federation, level]);

  const down = (part: Part) => (event: PointerEvent<SVGGElement>) => {
    const view = stage();
    event.stopPropagation();
    if (!view || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { part, x: event.clientX, y: event.clientY, pose: view.pose };
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    event.stopPropagation();
    const [held, view] = [drag.current, stage()];
    const sheet = view?.drawings[of];
    if (!held || !view || !sheet) return;
    const height = svg.current?.clientHeight ?? 1;
    const shift = shiftOn(sheet.pose, height, event.clientX - held.x, event.clientY - held.y);
    const { pose, part } = held;
    const from = part === "target" ? pose.eye.clone() : pose.eye.clone().add(shift);
    const to = part === "eye" ? pose.target.clone() : pose.target.clone().add(shift);
    announce(part === "target" ? "turned on the drawing" : "dragged on the drawing");
    view.take(aimed(pose, from, to));
  };
  const up = (event: PointerEvent<SVGGElement>) => {
    event.stopPropagation();
    drag.current = null;
  };
  const mark = (part: Part) => ({
    ref: (g: SVGGElement | null) => {
      if (g) marks.current[part] = g;
    },
    "data-own-drag": "",
    "data-testid": `drawing-${part}`,
    onPointerDown: down(part),
    onPointerMove: move,
    onPointerUp: up,
    style: { pointerEvents: "auto", cursor: "move" } as const,
  });
  return (
    <svg
      ref={svg}
      aria-label="The stage's eye on the drawing"
      role="application"
      style={{
        position: "absolute",
        inset: 0,
        width: "100%",
        height: "100%",
        pointerEvents: "none",
        touchAction: "none",
      }}
    >
      <style>{`.eye-head{fill:${tone.here};stroke:${tone.paper};stroke-width:1.2}
        [data-off=yes] .eye-head{fill:${tone.paper};stroke:${tone.here};stroke-width:1.6}`}</style>
      <g
        ref={(g) => {
          if (g) marks.current.sight = g;
        }}
      >
        <path
          d={`M0 0 L${SIGHT_PX} -22 A${SIGHT_PX + 4} ${SIGHT_PX + 4} 0 0 1 ${SIGHT_PX} 22 Z`}
          fill={tone.here}
          opacity={0.18}
        />
      </g>
      <g {...mark("both")}>
        <title>Drag to move the eye and its target together</title>
        <path stroke="transparent" strokeWidth={11} fill="none" />
        <path stroke={tone.here} strokeWidth={1.2} strokeDasharray="5 4" fill="none" />
      </g>
      <g {...mark("target")}>
        <title>Drag to move the target</title>
        <circle r={11} fill="transparent" />
        <circle r={6} fill={tone.paper} stroke={tone.here} strokeWidth={1.8} />
        <path d="M-9 0H9M0 -9V9" stroke={tone.here} strokeWidth={1.2} />
      </g>
      <g {...mark("eye")}>
        <title>Drag to move the eye; hollow when the eye is on another storey</title>
        <circle r={12} fill="transparent" />
        <path className="eye-head" d="M11 0 L-6 7 L-2 0 L-6 -7 Z" />
      </g>
    </svg>
  );
}
