import { useMemo } from "react";
import type { Action } from "../open/action";
import { spokenDrawing } from "../open/drawings/drawing";
import { useDrawings } from "../open/drawings/useDrawings";
import { useTrailSteps } from "../open/trail/useTrailKeeper";

/** Plans and elevations beside the stage. */
export function useBesideActions(): readonly Action[] {
  const drawings = useDrawings();
  const drawingTrail = useTrailSteps("drawing");
  return useMemo<readonly Action[]>(() => {
    return [
      { group: "Beside", name: "Plan beside the stage, on or off", key: "b", run: drawings.toggle },
      ...[...drawings.plans, ...drawings.elevations].map<Action>((drawing) => ({
        group: "Beside",
        name: `${spokenDrawing(drawing)} beside the stage`,
        run: () => drawings.show(drawing),
      })),
      {
        group: "Beside",
        name: "Elevation beside the stage, in its direction",
        run: drawings.asStageLooks,
      },
      { group: "Beside", name: "Drawing beside: back", key: "{", run: drawingTrail.back },
      { group: "Beside", name: "Drawing beside: forward", key: "}", run: drawingTrail.forward },
    ];
  }, [drawings, drawingTrail]);
}
