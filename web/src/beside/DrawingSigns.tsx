import { useEffect, useMemo, useState } from "react";
import { Vector3 } from "three";
import { type Drawing, levelOf } from "../open/drawings/drawing";
import { type Point, Sheet } from "../open/plan/plan";
import { useKeyPlan } from "../open/plan/useInstrument";
import { useSelection } from "../open/selection";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { PlanSigns, RoomNames, WayUp } from "../parts/PlanDrawing";
import { looking, type Pose } from "../stage/pose";
import type { DrawingKind, View } from "../stage/view";
import { letters } from "../style/lettering";
import { face, tone } from "../style/theme";
import { bubblesApart } from "./bubbles";
import { hull } from "./hull";
import { sheetAxes } from "./sheet";

const TAG_PX = 9;
/** An axis is drawn on an elevation that looks along it, as nearly as this. */
const ALONG = 0.999;
/** Levels are lines only where one looks level. */
const LEVEL = 0.01;
const MOST_OUTLINES = 200;
const OFF_PX = 3;

/** What stands on the drawing beside the building itself: names, levels, the grid, and what is picked. */
export function DrawingSigns({ of, drawing }: { of: DrawingKind; drawing: Drawing }) {
  const { drawn, stage } = useOpen();
  const [pose, setPose] = useState<Pose | null>(null);
  useEffect(() => drawn[of].listen((now) => setPose({ ...now })), [drawn, of]);
  const view = stage()?.drawings[of];
  if (!pose || !view) return null;
  return (
    <svg
      aria-hidden
      style={{ position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none" }}
    >
      <defs>
        <WayUp />
      </defs>
      {drawing.kind !== "elevation" && drawing.storey !== null ? (
        <OnPlan drawing={drawing} view={view} pose={pose} />
      ) : (
        <OnElevation view={view} pose={pose} />
      )}
      <PickedOutlines view={view} pose={pose} />
    </svg>
  );
}

function OnPlan({ drawing, view, pose }: { drawing: Drawing; view: View; pose: Pose }) {
  const { federation } = useOpen();
  const plan = useKeyPlan(Math.max(0, levelOf(federation, drawing)));
  const upDeg = looking(pose).bearingDeg;
  const sheet = useMemo(() => new Sheet(upDeg), [upDeg]);
  if (!plan || drawing.kind === "elevation" || plan.storey !== drawing.storey) return null;
  const pxPerM = 1 / view.pixelM;
  const zero = view.pixelOf(new Vector3(0, 0, pose.target.z));
  const shift = `translate(${zero.x} ${zero.y})`;
  return (
    <g>
      <g transform={`${shift} scale(${pxPerM})`}>
        <PlanSigns plan={plan} sheet={sheet} />
      </g>
      <g transform={shift}>
        <RoomNames plan={plan} sheet={sheet} pxPerM={pxPerM} />
      </g>
      <Bubbles
        lines={plan.axes.map(({ tag, ends }) => {
          const pixel = ([x = 0, y = 0]: readonly number[] = []) =>
            view.pixelOf(new Vector3(x, y, pose.target.z));
          return { tag, from: pixel(ends[0]), to: pixel(ends[1]) };
        })}
      />
    </g>
  );
}

function OnElevation({ view, pose }: { view: View; pose: Pose }) {
  const { federation } = useOpen();
  const units = useUnits();
  const plan = useKeyPlan(0);
  const { into } = sheetAxes(pose);
  const along = (ends: readonly (readonly number[])[]) => {
    const [[ax = 0, ay = 0] = [], [bx = 0, by = 0] = []] = ends;
    const length = Math.hypot(bx - ax, by - ay) || 1;
    return Math.abs(((bx - ax) * into.x + (by - ay) * into.y) / length) > ALONG;
  };
  const lowest = federation.levels[0]?.elevation_m ?? 0;
  const end = (federation.levels.at(-1)?.elevation_m ?? 0) + 4;
  const lines = (plan?.axes ?? [])
    .filter((axis) => along(axis.ends))
    .map(({ tag, ends }) => {
      const [x = 0, y = 0] = ends[0] ?? [];
      const pixel = (z: number) => view.pixelOf(new Vector3(x, y, z));
      return { tag, from: pixel(end), to: pixel(lowest - 1.5) };
    });
  return (
    <g>
      {lines.map(({ tag, from, to }) => (
        <path
          key={tag}
          d={`M${to.x} ${to.y} L${from.x} ${from.y}`}
          stroke={tone.soft}
          strokeWidth={0.6}
          strokeDasharray="9 3 2 3"
        />
      ))}
      <Bubbles lines={lines} />
      {Math.abs(into.z) < LEVEL &&
        federation.levels.map((level) => {
          const { y } = view.pixelOf(pose.target.clone().setZ(level.elevation_m));
          return (
            <g key={level.name}>
              <path d={`M0 ${y} H2000`} stroke={tone.soft} strokeWidth={0.7} strokeDasharray="3 4" />
              <Words x={6} y={y - 4} anchor="start">
                {`${level.name}  ${units.signed(level.elevation_m, 2)}`}
              </Words>
            </g>
          );
        })}
    </g>
  );
}

/** Outlines of the selection, dashed: seen also where something else is before it, or above the cut. */
function PickedOutlines({ view, pose }: { view: View; pose: Pose }) {
  const { stage } = useOpen();
  const picked = useSelection((s) => s.picked);
  const outlines = useMemo(() => {
    return [...(stage()?.building.pointsOf(picked.slice(0, MOST_OUTLINES)) ?? [])];
  }, [stage, picked]);
  if (!pose) return null;
  return outlines.map(([component, points]) => (
    <polygon
      key={component}
      data-testid="picked-outline"
      points={hull(
        points.map((point) => view.pixelOf(point)),
        OFF_PX,
      )
        .map(({ x, y }) => `${x},${y}`)
        .join(" ")}
      fill="none"
      stroke={tone.pick}
      strokeWidth={1.5}
      strokeDasharray="5 3"
    />
  ));
}

/** The tags of grid lines at their ends, side by side where the ends lie too near together. */
function Bubbles({ lines }: { lines: readonly { tag: string; from: Point; to: Point }[] }) {
  const bubbles = lines.map(({ tag, from, to }) => ({
    tag,
    end: to,
    way: { x: to.x - from.x, y: to.y - from.y },
  }));
  return bubblesApart(bubbles, TAG_PX).map(({ tag, end, at }) => (
    <g key={tag}>
      <path d={`M${end.x} ${end.y} L${at.x} ${at.y}`} stroke={tone.soft} strokeWidth={0.6} />
      <g transform={`translate(${at.x} ${at.y})`}>
        <circle r={TAG_PX} fill={tone.paper} stroke={tone.soft} strokeWidth={0.8} />
        <Words x={0} y={3.5} anchor="middle">
          {tag}
        </Words>
      </g>
    </g>
  ));
}

function Words(props: { x: number; y: number; anchor: "start" | "middle"; children: string }) {
  return (
    <text
      x={props.x}
      y={props.y}
      textAnchor={props.anchor}
      style={{ fontSize: letters(12) }}
      fontFamily={face.head}
      fontWeight={600}
      fill={tone.soft}
      stroke={tone.paper}
      strokeWidth={3}
      paintOrder="stroke"
    >
      {props.children}
    </text>
  );
}
