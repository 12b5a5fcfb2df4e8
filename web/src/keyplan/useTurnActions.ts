import { useMemo } from "react";
import type { Action } from "../open/action";
import { useShownLevel } from "../open/plan/storey";
import { useDirections, useKeyPlan, useTurns } from "../open/plan/useInstrument";
import { useOpen } from "../open/useStage";
import { looking } from "../stage/pose";

const NUDGE_DEG = 6;

/** Turning a little, and looking along the standard directions. */
export function useTurnActions(): readonly Action[] {
  const { stage } = useOpen();
  const directions = useDirections();
  const { level } = useShownLevel();
  const turns = useTurns(useKeyPlan(level));
  return useMemo<readonly Action[]>(() => {
    const pose = () => stage()?.pose ?? null;
    const nudge = (bearing: number, tilt: number) => () => {
      const now = pose();
      if (!now) return;
      const { bearingDeg, tiltDeg } = looking(now);
      turns.drag(bearingDeg + bearing, Math.max(-90, Math.min(90, tiltDeg + tilt)), turns.about());
    };
    return [
      { group: "Look", name: "Turn left", key: "left", run: nudge(-NUDGE_DEG, 0) },
      { group: "Look", name: "Turn right", key: "right", run: nudge(NUDGE_DEG, 0) },
      { group: "Look", name: "Look further up", key: "up", run: nudge(0, -NUDGE_DEG) },
      { group: "Look", name: "Look further down", key: "down", run: nudge(0, NUDGE_DEG) },
      ...directions.map<Action>((d) => ({
        group: "Look",
        name:
          Math.abs(d.tilt_deg) === 90
            ? d.tilt_deg > 0
              ? "Look at plan"
              : "Look straight up"
            : `Look from the ${d.name}`,
        run: () => void turns.toDirection(d),
      })),
    ];
  }, [stage, directions, turns]);
}
