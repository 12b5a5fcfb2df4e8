import { useMemo } from "react";
import { levelAt } from "../open/levels";
import type { Sheet } from "../open/plan/plan";
import { useOpen } from "../open/useStage";
import { tone } from "../style/theme";
import { useShownWay } from "./useShownWay";

/** The part of the route that lies on a level, and its tight places there. */
export function RouteOnPlan({ level, sheet }: { level: number; sheet: Sheet }) {
  const { federation } = useOpen();
  const answer = useShownWay();
  const drawn = useMemo(() => {
    if (!answer) return null;
    const on = (z: number) => levelAt(federation.levels, z) === level;
    const lines: number[][][] = [];
    let line: number[][] = [];
    for (const [x = 0, y = 0, z = 0] of answer.points_m) {
      if (on(z)) line.push([x, y]);
      else {
        if (line.length) lines.push([...line, [x, y]]);
        line = [];
      }
    }
    lines.push(line);
    const tight = [answer.narrowest, answer.lowest].flatMap((p) => (p && on(p.at_m[2] ?? 0) ? [p] : []));
    return {
      d: lines
        .filter((l) => l.length > 1)
        .map((l) => sheet.path(l))
        .join(""),
      dots: tight.map((p) =>
        sheet.path([
          [p.at_m[0] ?? 0, p.at_m[1] ?? 0],
          [p.at_m[0] ?? 0, p.at_m[1] ?? 0],
        ]),
      ),
    };
  }, [answer, federation, level, sheet]);
  if (!drawn) return null;
  const stroke = {
    fill: "none",
    vectorEffect: "non-scaling-stroke" as const,
    strokeLinecap: "round" as const,
  };
  return (
    <g data-testid="route-on-plan">
      <path d={drawn.d} {...stroke} stroke={tone.here} strokeWidth={2.5} strokeLinejoin="round" />
      {drawn.dots.map((d) => (
        <path key={d} d={d} {...stroke} stroke={tone.pick} strokeWidth={7} />
      ))}
    </g>
  );
}
