import { type PointerEvent, useEffect, useMemo, useRef, useState, type WheelEvent } from "react";
import type { Vector3 } from "three";
import { useOpen } from "../project/useStage";
import { looking } from "../stage/pose";
import { face, tone } from "../theme";
import type { Direction } from "./directions";
import { PlanDrawing, RoomNames } from "./PlanDrawing";
import { type KeyPlan, offStorey, onPlan, type PlanView, type Point, roomAt, Sheet, wholePlan } from "./plan";
import { Needle, RING_PX, Ring } from "./Ring";
import { useNorth, useTurns } from "./useInstrument";

const CLICK_PX = 4;
const EYE_PX = 11;
const CLOSEST_PX_PER_M = 120;
/** So much of the plan is across the frame when it comes close. */
const NEAR_M = 30;

type Drag =
  | { kind: "eye" }
  | { kind: "ring"; pivot: Vector3; tiltDeg: number }
  | { kind: "stand"; from: Point; start: Point; moved: boolean }
  | { kind: "sheet"; start: Point; view: PlanView };

/** The key plan inside its bearing ring. */
export function PlanFrame(props: {
  size: number;
  plan: KeyPlan;
  level: number;
  sides: readonly Direction[];
  /** Come close to the eye while it is on the storey. */
  close: boolean;
}) {
  const { size, plan, level } = props;
  const { federation, eye } = useOpen();
  const north = useNorth();
  const turns = useTurns(plan);
  const sheet = useMemo(() => new Sheet(north), [north]);
  const middle = size / 2;
  const radius = middle - RING_PX - 2;
  const whole = useMemo(() => wholePlan(plan, sheet, radius - 5), [plan, sheet, radius]);
  const [own, setOwn] = useState<PlanView | null>(null);
  /** Close up, the plan moves under the eye. */
  const [near, setNear] = useState(false);
  const pxPerM = own?.pxPerM ?? (near ? Math.max(whole.pxPerM, size / NEAR_M) : whole.pxPerM);
  const view = useRef<PlanView>(whole);
  const svg = useRef<SVGSVGElement>(null);
  const drawing = useRef<SVGGElement>(null);
  const names = useRef<SVGGElement>(null);
  const mark = useRef<SVGGElement>(null);
  const needle = useRef<SVGGElement>(null);
  const room = useRef<SVGTextElement>(null);
  const drag = useRef<Drag | null>(null);

  useEffect(
    () =>
      eye.listen((pose) => {
        const { bearingDeg, tiltDeg } = looking(pose);
        const at = sheet.onto(pose.eye);
        const off = offStorey(federation.levels, level, pose.eye.z);
        if (!drag.current) {
          setNear(props.close && off === "no" && onPlan(plan, pose.eye, 3));
          view.current = own ?? { pxPerM, x: near ? at.x : whole.x, y: near ? at.y : whole.y };
        }
        const v = view.current;
        const shift = `translate(${middle - v.x * v.pxPerM} ${middle - v.y * v.pxPerM})`;
        drawing.current?.setAttribute("transform", `${shift} scale(${v.pxPerM})`);
        names.current?.setAttribute("transform", shift);
        const x = (at.x - v.x) * v.pxPerM;
        const y = (at.y - v.y) * v.pxPerM;
        const out = Math.hypot(x, y) / (radius - 6);
        const pull = out > 1 ? 1 / out : 1;
        const set = (name: string, value: string) => mark.current?.setAttribute(name, value);
        set(
          "transform",
          `translate(${middle + x * pull} ${middle + y * pull}) rotate(${bearingDeg - north})`,
        );
        set("data-off", off);
        set("data-beyond", pull < 1 ? "yes" : "no");
        needle.current?.setAttribute("transform", `rotate(${bearingDeg - north} ${middle} ${middle})`);
        svg.current?.setAttribute("data-bearing", ((bearingDeg - north + 720) % 360).toFixed(2));
        svg.current?.setAttribute("data-tilt", tiltDeg.toFixed(2));
        const here = off === "no" ? roomAt(plan, pose.eye) : null;
        if (room.current) room.current.textContent = here ? `${here.number} ${here.name}` : "";
      }),
    [eye, sheet, own, pxPerM, near, whole, middle, radius, north, federation, level, plan, props.close],
  );

  const pixel = (event: { clientX: number; clientY: number }): Point => {
    const box = svg.current?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  };
  const planPoint = (p: Point): Point =>
    sheet.from({
      x: view.current.x + (p.x - middle) / view.current.pxPerM,
      y: view.current.y + (p.y - middle) / view.current.pxPerM,
    });
  const bearingAt = (p: Point) => (Math.atan2(p.x - middle, middle - p.y) * 180) / Math.PI + north;

  const down = (event: PointerEvent<SVGSVGElement>) => {
    if ((event.target as Element).closest("[data-side]")) return;
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
    if (!d) return;
    const p = pixel(event);
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
  const sides = props.sides.map((direction) => ({
    direction,
    bearingDeg: turns.front() + direction.bearing_deg - north,
    title: `Look at the building from its ${direction.name}`,
  }));
  return (
    <svg
      ref={svg}
      width={size}
      height={size}
      role="application"
      aria-label="Key plan in its bearing ring"
      data-testid="key-plan"
      data-storey={plan.storey}
      style={{ touchAction: "none", display: "block" }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onWheel={zoom}
      onContextMenu={(event) => event.preventDefault()}
    >
      <defs>
        <clipPath id="plan-inside">
          <circle cx={middle} cy={middle} r={radius} />
        </clipPath>
        <marker
          id="way-up"
          viewBox="0 0 6 6"
          refX="5"
          refY="3"
          markerWidth="6"
          markerHeight="6"
          orient="auto"
        >
          <path d="M0,1 5,3 0,5" fill="none" stroke={tone.ink} />
        </marker>
      </defs>
      <circle cx={middle} cy={middle} r={middle - 1.5} fill={tone.paper} stroke={tone.line} />
      <circle cx={middle} cy={middle} r={radius} fill="#fff" stroke={tone.ink} strokeWidth={1.3} />
      <g clipPath="url(#plan-inside)" style={{ cursor: "crosshair" }}>
        <rect width={size} height={size} fill="transparent" />
        <g ref={drawing}>
          <PlanDrawing plan={plan} sheet={sheet} />
        </g>
        <g ref={names}>
          <RoomNames plan={plan} sheet={sheet} pxPerM={pxPerM} />
        </g>
      </g>
      <Ring size={size} sides={sides} onSide={turns.toSide} />
      <g ref={needle} style={{ cursor: "grab" }} data-testid="needle">
        <Needle size={size} />
      </g>
      <EyeArrow innerRef={mark} />
      <text
        ref={room}
        data-testid="present-room"
        x={middle}
        y={size - RING_PX - 14}
        textAnchor="middle"
        fontSize={12}
        fontWeight={600}
        fontFamily={face.head}
        fill={tone.here}
        stroke={tone.paper}
        strokeWidth={3.5}
        paintOrder="stroke"
        style={{ pointerEvents: "none" }}
      />
    </svg>
  );
}

/** The eye and where it looks; with a second head when it is above or below the storey. */
function EyeArrow({ innerRef }: { innerRef: React.Ref<SVGGElement> }) {
  return (
    <g ref={innerRef} data-eye="" data-testid="eye-on-plan" className="eye-arrow" style={{ cursor: "move" }}>
      <style>{`.eye-arrow[data-off="no"] .second{display:none}.eye-arrow[data-beyond="yes"] .sight{display:none}`}</style>
      <path className="sight" d="M0 0 L-17 -40 A44 44 0 0 1 17 -40 Z" fill={tone.here} opacity={0.2} />
      <circle r={EYE_PX} fill="transparent" />
      <path d="M0 -9 L6 3 L0 0 L-6 3 Z" fill={tone.here} stroke={tone.paper} strokeWidth={1} />
      <path
        className="second"
        d="M0 13 L6 1 L0 4 L-6 1 Z"
        fill={tone.here}
        stroke={tone.paper}
        strokeWidth={1}
      />
    </g>
  );
}
