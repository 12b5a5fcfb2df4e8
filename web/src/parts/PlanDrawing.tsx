import { memo, useMemo } from "react";
import type { KeyPlan, Sheet } from "../open/plan/plan";
import { face, tone } from "../style/theme";
import { DrawnButton } from "./DrawnButton";

const LETTER = 0.52;
const NAME_PX = 12;

const line = { fill: "none", vectorEffect: "non-scaling-stroke" as const };

function pathOf(sheet: Sheet, lines: readonly (readonly (readonly number[])[])[]): string {
  return lines.map((l) => sheet.path(l)).join("");
}

/** What a plan says in signs: the grid, the swings of doors, and the way up of stairs. */
export const PlanSigns = memo(function PlanSigns({ plan, sheet }: { plan: KeyPlan; sheet: Sheet }) {
  const paths = useMemo(
    () => ({
      axes: pathOf(
        sheet,
        plan.axes.map((a) => a.ends),
      ),
      swings: plan.swings.map((s) => `${sheet.path(s.leaf)}${sheet.path(s.arc)}`).join(""),
      ways: plan.flights.map((f) => sheet.path(f.way_up)),
    }),
    [plan, sheet],
  );
  return (
    <g>
      <path d={paths.axes} {...line} stroke={tone.line} strokeWidth={0.8} />
      <path d={paths.swings} {...line} stroke={tone.soft} strokeWidth={0.6} />
      {paths.ways.map((d) => (
        <path key={d} d={d} {...line} stroke={tone.ink} strokeWidth={0.9} markerEnd="url(#way-up)" />
      ))}
    </g>
  );
});

/** The head of an arrow that points up a stair. */
export function WayUp() {
  return (
    <marker id="way-up" viewBox="0 0 6 6" refX="5" refY="3" markerWidth="6" markerHeight="6" orient="auto">
      <path d="M0,1 5,3 0,5" fill="none" stroke={tone.ink} />
    </marker>
  );
}

/** The plan itself: cut walls and columns filled, everything else in thin lines. */
export const PlanDrawing = memo(function PlanDrawing({ plan, sheet }: { plan: KeyPlan; sheet: Sheet }) {
  const paths = useMemo(
    () => ({
      solid: plan.solid.map((l) => `${sheet.path(l)}Z`).join(""),
      thin: pathOf(sheet, plan.thin),
      treads: pathOf(
        sheet,
        plan.flights.flatMap((f) => f.edges),
      ),
    }),
    [plan, sheet],
  );
  return (
    <g>
      <path d={paths.treads} {...line} stroke={tone.soft} strokeWidth={0.5} />
      <path d={paths.thin} {...line} stroke={tone.soft} strokeWidth={0.7} />
      <PlanSigns plan={plan} sheet={sheet} />
      <path
        d={paths.solid}
        fill={tone.ink}
        fillRule="evenodd"
        stroke={tone.ink}
        strokeWidth={0.6}
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
});

/** Names of the rooms that have space for theirs, in pixels from the plan's zero. */
export const RoomNames = memo(function RoomNames(props: { plan: KeyPlan; sheet: Sheet; pxPerM: number }) {
  const { plan, sheet, pxPerM } = props;
  return (
    <g style={{ pointerEvents: "none" }}>
      {plan.rooms.map((room) => {
        const xs = room.outlines.flat().map(([x = 0, y = 0]) => sheet.onto({ x, y }).x);
        const wide = (Math.max(...xs) - Math.min(...xs)) * pxPerM;
        const fits = (words: string) => words.length * NAME_PX * LETTER < wide - 2;
        const words = fits(room.name) ? room.name : fits(room.number) ? room.number : "";
        if (!words) return null;
        const at = sheet.onto({ x: room.label[0] ?? 0, y: room.label[1] ?? 0 });
        return (
          <text
            key={room.index}
            x={at.x * pxPerM}
            y={at.y * pxPerM + 3}
            textAnchor="middle"
            fontSize={NAME_PX}
            fontFamily={face.head}
            fontWeight={600}
            fill={tone.soft}
            stroke={tone.paper}
            strokeWidth={2.5}
            paintOrder="stroke"
          >
            {words}
          </text>
        );
      })}
    </g>
  );
});

const TAG_PX = 7;

/** The grid's tags where their axes leave the frame; a click looks square onto the axis. */
export const AxisTags = memo(function AxisTags(props: {
  plan: KeyPlan;
  sheet: Sheet;
  onAxis: (tag: string, ends: number[][]) => void;
  /** Where a point of the sheet is in the frame, kept inside it. */
  place: (p: { x: number; y: number }) => { x: number; y: number };
}) {
  const { plan, sheet, place } = props;
  return (
    <g>
      {plan.axes.map((axis) => {
        const end = axis.ends[1] ?? [];
        const at = place(sheet.onto({ x: end[0] ?? 0, y: end[1] ?? 0 }));
        return (
          <DrawnButton
            key={axis.tag}
            label={`Look square onto axis ${axis.tag}`}
            onPress={() => props.onAxis(axis.tag, axis.ends)}
          >
            <circle cx={at.x} cy={at.y} r={TAG_PX} fill={tone.paper} stroke={tone.soft} strokeWidth={0.8} />
            <text
              x={at.x}
              y={at.y + 3}
              textAnchor="middle"
              fontSize={8.5}
              fontFamily={face.head}
              fontWeight={600}
              fill={tone.soft}
            >
              {axis.tag}
            </text>
          </DrawnButton>
        );
      })}
    </g>
  );
});
