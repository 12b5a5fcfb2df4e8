import { type PointerEvent, useEffect, useRef } from "react";
import { spokenDrawing } from "../open/drawings/drawing";
import { useBeside } from "../open/drawings/shown";
import { announce } from "../open/trail/cause";
import { useOpen } from "../open/useStage";
import { outlineBefore } from "../stage/outline";
import type { Pose } from "../stage/pose";
import { DRAWINGS, type DrawingKind } from "../stage/view";
import { letters } from "../style/lettering";
import { face, tone } from "../style/theme";
import { alongLine, cornersOf, onPlane, sheetAxes } from "./sheet";

/** The eye's mark is at least so far from the target's, so that each can be taken hold of. */
const APART_PX = 26;

type Part = "eye" | "target";

/** The frames of the drawings, their eyes and targets on the stage, to be dragged there while the drawings follow. */
export function DrawingOnStage() {
  const shown = useBeside();
  return DRAWINGS.map((of) => {
    const drawing = shown[of];
    return drawing && <Marks key={of} of={of} name={spokenDrawing(drawing)} />;
  });
}

function Marks({ of, name }: { of: DrawingKind; name: string }) {
  const { stage, eye, drawn } = useOpen();
  const svg = useRef<SVGSVGElement>(null);
  const frame = useRef<SVGPathElement>(null);
  const label = useRef<SVGTextElement>(null);
  const line = useRef<SVGPathElement>(null);
  const marks = useRef<Partial<Record<Part, SVGGElement>>>({});
  const drag = useRef<{ part: Part; pose: Pose; x: number; y: number } | null>(null);

  useEffect(() => {
    const place = () => {
      const [main, view] = [stage()?.main, stage()?.drawings[of]];
      if (!main || !view) return;
      const pose = view.pose;
      const corners = outlineBefore(cornersOf(pose, view.aspect), main.pose).map((p) => main.pixelOf(p));
      const d = corners.map((p, i) => `${i ? "L" : "M"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("");
      frame.current?.setAttribute("d", d && `${d}Z`);
      // The name stands at the corner that is highest on the stage.
      const top = corners.reduce((best, p) => (p.y < best.y ? p : best), corners[0] ?? { x: 0, y: -99 });
      label.current?.setAttribute("transform", `translate(${top.x} ${top.y - 5})`);
      const shown = (seen: boolean) => {
        for (const g of [marks.current.eye, marks.current.target, line.current])
          g?.setAttribute("visibility", seen ? "visible" : "hidden");
      };
      const to = main.pixelOf(pose.target);
      const from = main.pixelOf(pose.eye);
      const apart = Math.hypot(from.x - to.x, from.y - to.y);
      // A point in the very plane of the eye is seen nowhere.
      const seen = to.before && from.before && Number.isFinite(apart);
      shown(seen);
      if (!seen) return;
      const [ux, uy] = apart > 0.5 ? [(from.x - to.x) / apart, (from.y - to.y) / apart] : [0, -1];
      const reach = Math.max(APART_PX, apart);
      const at = { x: to.x + ux * reach, y: to.y + uy * reach };
      marks.current.target?.setAttribute("transform", `translate(${to.x} ${to.y})`);
      marks.current.eye?.setAttribute("transform", `translate(${at.x} ${at.y})`);
      line.current?.setAttribute("d", `M${at.x} ${at.y} L${to.x} ${to.y}`);
    };
    const stops = [eye.listen(place), drawn[of].listen(place)];
    return () => {
      for (const stop of stops) stop();
    };
  }, [eye, drawn, of, stage]);

  const down = (part: Part) => (event: PointerEvent<SVGGElement>) => {
    const view = stage()?.drawings[of];
    if (!view || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { part, pose: view.pose, x: event.clientX, y: event.clientY };
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    const [held, main, view] = [drag.current, stage()?.main, stage()?.drawings[of]];
    const box = svg.current?.getBoundingClientRect();
    if (!held || !main || !view || !box) return;
    const { pose } = held;
    const { into } = sheetAxes(pose);
    const grabbed = main.pixelOf(pose.target);
    // As far from where the target is seen as the cursor is from where it took hold.
    const ray = main.rayAtPixel(grabbed.x + event.clientX - held.x, grabbed.y + event.clientY - held.y);
    const shift =
      held.part === "eye" ? alongAxis(ray, pose) : onPlane(ray, pose.target, into)?.sub(pose.target);
    if (!shift) return;
    announce(held.part === "eye" ? "cut elsewhere" : "moved in the stage", of);
    const target = held.part === "eye" ? pose.target.clone() : pose.target.clone().add(shift);
    view.navigation.set({ ...pose, eye: pose.eye.clone().add(shift), target }, "went");
  };
  const up = () => {
    drag.current = null;
  };
  const mark = (part: Part) => ({
    ref: (g: SVGGElement | null) => {
      if (g) marks.current[part] = g;
    },
    "data-testid": `sheet-${part}`,
    onPointerDown: down(part),
    onPointerMove: move,
    onPointerUp: up,
    style: { pointerEvents: "auto", cursor: "move", touchAction: "none" } as const,
  });
  return (
    <svg
      ref={svg}
      role="application"
      aria-label={`${name}: its frame on the stage`}
      style={{ position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none" }}
    >
      <path
        ref={frame}
        data-testid="sheet-frame"
        fill={tone.pick}
        fillOpacity={0.05}
        stroke={tone.pickInk}
        strokeWidth={1.3}
        strokeDasharray="7 4"
      />
      <text
        ref={label}
        textAnchor="middle"
        style={{ fontSize: letters(12) }}
        fontFamily={face.head}
        fontWeight={600}
        fill={tone.pickInk}
        stroke={tone.film}
        strokeWidth={3}
        paintOrder="stroke"
      >
        {name}
      </text>
      <path ref={line} stroke={tone.pickInk} strokeWidth={1.2} strokeDasharray="3 3" />
      <g {...mark("target")}>
        <title>Drag to move the drawing</title>
        <circle r={12} fill="transparent" />
        <circle r={6} fill={tone.paper} stroke={tone.pickInk} strokeWidth={1.8} />
        <path d="M-9 0H9M0 -9V9" stroke={tone.pickInk} strokeWidth={1.2} />
      </g>
      <g {...mark("eye")}>
        <title>Drag to move where the drawing is cut</title>
        <circle r={12} fill="transparent" />
        <path d="M-8 0 Q0 -8 8 0 Q0 8 -8 0 Z" fill={tone.paper} stroke={tone.pickInk} strokeWidth={1.6} />
        <circle r={2.6} fill={tone.pickInk} />
      </g>
    </svg>
  );
}

/** How far the drawing's eye goes along its line of sight, never past its target. */
function alongAxis(ray: Parameters<typeof alongLine>[0], pose: Pose) {
  const { into } = sheetAxes(pose);
  const by = alongLine(ray, pose.target, into);
  const reach = pose.target.distanceTo(pose.eye);
  return by === null ? null : into.multiplyScalar(Math.min(by, reach - 0.05));
}
