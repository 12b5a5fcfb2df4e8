import { useEffect } from "react";
import { COLOURS, useMarking } from "../open/markups/marking";
import { usePlacing } from "../open/markups/usePlacing";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { Markups } from "../stage/layers/markups";
import { MarkupDrag } from "../stage/tools/markDrags";
import { useDrawn } from "./useDrawn";

/** The markups of the view on the stage: drawn, picked, dragged, and their words asked for. */
export function MarkupsOnStage() {
  const { stage } = useOpen();
  const signs = useDrawn();
  const chosen = useMarking((s) => s.chosen);
  const { move, back } = usePlacing();
  useEffect(() => stage()?.layer(Markups).show(signs, chosen), [stage, signs, chosen]);
  useEffect(() => {
    const drawnOn = stage();
    if (!drawnOn) return;
    const layer = drawnOn.layer(Markups);
    const of = (id: string) => useViewState.getState().markups.find((each) => each.id === id);
    layer.clicked = ({ id, pin }) => {
      const markup = of(id);
      if (!markup) return;
      useMarking.setState({ chosen: id });
      useSession.getState().open("markups");
      if (pin) back(markup);
    };
    layer.gripped = ({ id, handle }) => {
      const [view, markup] = [drawnOn.main, of(id)];
      const sign = signs.find((each) => each.id === id);
      if (!markup || !sign || id !== useMarking.getState().chosen) return null;
      const held = {
        points: sign.handles.length ? sign.handles : [sign.at, sign.textAt],
        normal: sign.normal,
        handle,
      };
      return new MarkupDrag(
        view,
        held,
        (points) => layer.showLive(points, COLOURS[markup.colour].colour, markup.width_px),
        (from, to) => void move(markup, from, to, handle),
      );
    };
  }, [stage, signs, move, back]);
  return null;
}
