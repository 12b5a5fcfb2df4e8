import { useEffect } from "react";
import { Vector3 } from "three";
import { boxesOver } from "../open/looking/covered";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { Dimensions } from "../stage/layers/dimensions";
import { read } from "./figures";
import { useMeasuring } from "./measuring";
import { useCatches } from "./useCatches";
import { useFound } from "./useFound";

/** What was measured, drawn on the stage. */
export function MeasuresOnStage() {
  useCatches();
  const { stage, federation } = useOpen();
  const measures = useViewState((s) => s.measures);
  const opened = useMeasuring((s) => s.opened);
  const units = useUnits();
  const { of } = useFound();
  useEffect(() => {
    const view = stage();
    if (!view) return;
    view.layer(Dimensions).over = () => {
      const at = view.canvas.getBoundingClientRect();
      return boxesOver().map(({ left, top, width: w, height: h }) => ({
        x: left - at.left + w / 2,
        y: top - at.top + h / 2,
        w,
        h,
      }));
    };
  }, [stage]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another federation counts from another origin
  useEffect(() => {
    stage()
      ?.layer(Dimensions)
      .show(
        measures.flatMap((measure) => {
          const found = of(measure);
          return (found?.dimensions ?? []).map(({ line, figure }) => {
            const bears = figure === null ? undefined : found?.figures[figure];
            return {
              line: line.map((point) => new Vector3().fromArray(point)),
              text: bears ? read(bears, units) : null,
              chosen: measure.id === opened,
            };
          });
        }),
      );
  }, [stage, federation, measures, opened, units, of]);
  return null;
}
