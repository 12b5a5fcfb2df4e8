import { useEffect } from "react";
import { Vector3 } from "three";
import { boxesOver } from "../open/looking/covered";
import { onStage } from "../open/origin";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { Dimensions } from "../stage/layers/dimensions";
import { read } from "./figures";
import { pendingLines, useMeasuring } from "./measuring";
import { useCatches } from "./useCatches";
import { useFound } from "./useFound";

/** What was measured, drawn on the stage. */
export function MeasuresOnStage() {
  useCatches();
  const { stage, federation } = useOpen();
  const measures = useViewState((s) => s.measures);
  const { opened, clicked } = useMeasuring();
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
  useEffect(() => {
    const known = measures.flatMap((measure) => {
      const found = of(measure);
      return (found?.dimensions ?? []).map(({ line, figure }) => {
        const bears = figure === null ? undefined : found?.figures[figure];
        return {
          line: line.map((point) => new Vector3().fromArray(point)),
          text: bears ? read(bears, units) : null,
          chosen: measure.id === opened,
        };
      });
    });
    const pending = pendingLines(clicked, measures, of).map((line) => ({
      line: line.map((point) => onStage(point, federation.origin_m)),
      text: "…",
      chosen: true,
    }));
    stage()
      ?.layer(Dimensions)
      .show([...known, ...pending]);
  }, [stage, federation, measures, opened, clicked, units, of]);
  return null;
}
