import { useMemo } from "react";
import type { Action } from "../open/action";
import { NAMES } from "../open/markups/marking";
import { useSession } from "../open/session";
import { type ByHand, useMarks } from "./useMarks";

/** Drawing over the view, by name. */
export function useMarkupActions(): readonly Action[] {
  const { take } = useMarks();
  return useMemo<readonly Action[]>(() => {
    const draw = (kind: ByHand): Action => ({
      group: "Mark",
      name: `Mark with a ${NAMES[kind]}`.replace("a arrow", "an arrow").replace("a ellipse", "an ellipse"),
      run: () => take(kind),
    });
    return [
      { group: "Mark", name: "Markups", key: "shift+k", run: () => useSession.getState().open("markups") },
      draw("cloud"),
      draw("arrow"),
      draw("callout"),
      draw("text"),
      draw("freehand"),
      draw("line"),
      draw("polyline"),
      draw("rectangle"),
      draw("ellipse"),
    ];
  }, [take]);
}
