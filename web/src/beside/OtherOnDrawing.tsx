import { type PointerEvent, useEffect, useRef } from "react";
import { useBeside } from "../open/drawings/shown";
import { announce } from "../open/trail/cause";
import { useOpen } from "../open/useStage";
import type { Pose } from "../stage/pose";
import { DRAWINGS, type DrawingKind } from "../stage/view";
import { tone } from "../style/theme";
import { cutLine, ontoSheet, shiftOn } from "./sheet";

/** Where the other drawing is cut, as a line to be dragged while that drawing follows. */
export function OtherOnDrawing({ of }: { of: DrawingKind }) {
  const other = DRAWINGS.find((each) => each !== of) ?? of;
  const open = useBeside((s) => s[other] !== null);
  return open ? <CutLine of={of} other={other} /> : null;
}

function CutLine({ of, other }: { of: DrawingKind; other: DrawingKind }) {
  const { stage, drawn } = useOpen();
  const group = useRef<SVGGElement>(null);
  /** How far from where the cut is its line is drawn, in pixels. */
  const waits = useRef({ x: 0, y: 0 });
  const drag = useRef<{ x: number; y: number; pose: Pose } | null>(null);
  useEffect(() => {
    const place = () => {
      const [own, cut] = [stage()?.drawings[of], stage()?.drawings[other]];
      const line = own && cut && cutLine(own.pose, cut.pose, cut.aspect);
      group.current?.setAttribute("visibility", line ? "visible" : "hidden");
      if (!own || !line) return;
      const [from, to, look] = [line.from, line.to, line.from.clone().add(line.into)].map((p) =>
        own.pixelOf(p),
      );
      if (!from || !to || !look) return;
      const length = Math.hypot(look.x - from.x, look.y - from.y) || 1;
      const way = { x: (look.x - from.x) / length, y: (look.y - from.y) / length };
      // A cut beyond the sheet waits at its edge.
      const by = ontoSheet({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }, way, own.size, EDGE_PX);
      waits.current = { x: way.x * by, y: way.y * by };
      group.current?.setAttribute("opacity", by ? "0.55" : "1");
      const [a, b] = [from, to].map((p) => ({ x: p.x + way.x * by, y: p.y + way.y * by }));
      if (!a || !b) return;
      const [dx, dy] = [way.x * ARROW_PX, way.y * ARROW_PX];
      const arrow = ({ x, y }: { x: number; y: number }) => `M${x} ${y} l${dx} ${dy}`;
      for (const path of group.current?.querySelectorAll("path[data-line]") ?? [])
        path.setAttribute("d", `M${a.x} ${a.y} L${b.x} ${b.y}`);
      group.current?.querySelector("path[data-arrows]")?.setAttribute("d", `${arrow(a)} ${arrow(b)}`);
    };
    const stops = [drawn[of].listen(place), drawn[other].listen(place)];
    return () => {
      for (const stop of stops) stop();
    };
  }, [drawn, of, other, stage]);
  const down = (event: PointerEvent<SVGGElement>) => {
    const cut = stage()?.drawings[other];
    event.stopPropagation();
    if (!cut || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { x, y } = waits.current;
    drag.current = { x: event.clientX - x, y: event.clientY - y, pose: cut.pose };
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    const [own, cut, held] = [stage()?.drawings[of], stage()?.drawings[other], drag.current];
    if (!own || !cut || !held) return;
    event.stopPropagation();
    const shift = shiftOn(own.pose, own.size.height, event.clientX - held.x, event.clientY - held.y);
    const { pose } = held;
    const into = pose.target.clone().sub(pose.eye).normalize();
    const along = into.multiplyScalar(shift.dot(into));
    announce("cut elsewhere", other);
    cut.navigation.set(
      { ...pose, eye: pose.eye.clone().add(along), target: pose.target.clone().add(along) },
      "went",
    );
  };
  const up = (event: PointerEvent<SVGGElement>) => {
    event.stopPropagation();
    drag.current = null;
  };
  return (
    <svg
      role="application"
      aria-label="Where the other drawing is cut"
      style={{ position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none" }}
    >
      <g
        ref={group}
        data-own-drag=""
        data-testid="other-cut"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        style={{ pointerEvents: "auto", cursor: "move", touchAction: "none" }}
      >
        <title>Drag to move where the other drawing is cut</title>
        <path data-line="" stroke="transparent" strokeWidth={12} fill="none" />
        <path data-line="" stroke={tone.pickInk} strokeWidth={1.6} strokeDasharray="12 4 3 4" fill="none" />
        <path data-arrows="" stroke={tone.pickInk} strokeWidth={4} fill="none" />
      </g>
    </svg>
  );
}

const ARROW_PX = 12;
const EDGE_PX = 16;
