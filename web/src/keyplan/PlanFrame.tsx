import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { offStorey } from "../open/levels";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import type { Direction } from "../open/plan/directions";
import { type KeyPlan, onPlan, type PlanView, type Point, roomAt, Sheet, wholePlan } from "../open/plan/plan";
import { useNorth, useTurns } from "../open/plan/useInstrument";
import { useOpen } from "../open/useStage";
import { Slot } from "../parts/feature";
import { AxisTags, PlanDrawing, RoomNames, WayUp } from "../parts/PlanDrawing";
import { looking } from "../stage/pose";
import { face, tone } from "../style/theme";
import { EyeArrow } from "./EyeArrow";
import { Needle, RING_PX, Ring } from "./Ring";
import { type PlanDrag, usePlanDrags } from "./usePlanDrags";

type Room = KeyPlan["rooms"][number];

/** So much of the plan is across the frame when it comes close. */
const NEAR_M = 30;

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
  const look = useCameraCommands();
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
  const drag = useRef<PlanDrag | null>(null);
  /** Where the cursor is; the room there is named in place of the one that the eye is in. */
  const pointed = useRef<Point | null>(null);
  const nameRoom = useCallback((found: Room | null) => {
    if (room.current) room.current.textContent = found ? `${found.number} ${found.name}` : "";
  }, []);
  const roomOfEye = useRef<Room | null>(null);
  const pointAt = (p: Point | null) => {
    pointed.current = p;
    nameRoom((p && roomAt(plan, p)) ?? roomOfEye.current);
  };

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
        roomOfEye.current = off === "no" ? roomAt(plan, pose.eye) : null;
        nameRoom((pointed.current && roomAt(plan, pointed.current)) ?? roomOfEye.current);
      }),
    [
      eye,
      sheet,
      own,
      pxPerM,
      near,
      whole,
      middle,
      radius,
      north,
      federation,
      level,
      plan,
      props.close,
      nameRoom,
    ],
  );

  const { down, move, up, zoom } = usePlanDrags({
    svg,
    view,
    whole,
    drag,
    setOwn,
    sheet,
    middle,
    radius,
    north,
    level,
    turns,
    pointAt,
  });
  const tagPlace = useCallback(
    (p: Point) => {
      const x = (p.x - whole.x) * whole.pxPerM;
      const y = (p.y - whole.y) * whole.pxPerM;
      const pull = Math.min(1, (radius - 9) / Math.max(1, Math.hypot(x, y)));
      return { x: middle + x * pull, y: middle + y * pull };
    },
    [whole, radius, middle],
  );
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
      style={{ touchAction: "none", display: "block", overflow: "visible" }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerLeave={() => pointAt(null)}
      onPointerCancel={up}
      onWheel={zoom}
      onContextMenu={(event) => event.preventDefault()}
    >
      <defs>
        <clipPath id="plan-inside">
          <circle cx={middle} cy={middle} r={radius} />
        </clipPath>
        <WayUp />
      </defs>
      <circle cx={middle} cy={middle} r={middle - 1.5} fill={tone.paper} stroke={tone.line} />
      <circle cx={middle} cy={middle} r={radius} fill="#fff" stroke={tone.ink} strokeWidth={1.3} />
      <g clipPath="url(#plan-inside)" style={{ cursor: "crosshair" }}>
        <rect width={size} height={size} fill="transparent" />
        <g ref={drawing} data-sheet="">
          <PlanDrawing plan={plan} sheet={sheet} />
          <Slot of="linesOnPlan" told={{ level, sheet, pxPerM, small: props.close }} />
        </g>
        <g ref={names}>
          <RoomNames plan={plan} sheet={sheet} pxPerM={pxPerM} />
          <Slot of="platesOnPlan" told={{ level, sheet, pxPerM, small: props.close }} />
        </g>
      </g>
      {!props.close && !own && (
        <AxisTags
          plan={plan}
          sheet={sheet}
          place={tagPlace}
          onAxis={(tag, ends) => void look.squareToAxis(tag, ends)}
        />
      )}
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
