import { useMemo } from "react";
import type { Action } from "../open/action";
import { shownLevel } from "../open/plan/storey";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { liftLid } from "./lid";
import { useCuts } from "./useCuts";

/** Making cuts and switching them off, by name. */
export function useCutActions(): readonly Action[] {
  const { federation, stage } = useOpen();
  const cuts = useCuts();
  return useMemo<readonly Action[]>(() => {
    const desk = () => useSession.getState().open("cuts");
    const opening = (run: () => void) => () => {
      desk();
      run();
    };
    const here = () => shownLevel(federation);
    return [
      { group: "Cut", name: "Cuts", key: "t", run: desk },
      { group: "Cut", name: "Cut this storey from above at 1.2 m", run: opening(() => cuts.storey(here())) },
      {
        group: "Cut",
        name: "Lift or replace the lid of this storey",
        key: "shift+o",
        run: () => liftLid(federation, stage(), here()),
      },
      { group: "Cut", name: "Cut square to this view", run: opening(cuts.facing) },
      { group: "Cut", name: "Cut along a face", run: opening(cuts.face) },
      { group: "Cut", name: "Cut through three points", run: opening(cuts.points) },
      { group: "Cut", name: "Cut box between two corners", run: opening(cuts.drawn) },
      { group: "Cut", name: "Cut box around the selection", run: opening(cuts.aroundPicked) },
      {
        group: "Cut",
        name: "Band around the ceiling void of this storey",
        run: opening(() => cuts.ceilingVoid(here())),
      },
      {
        group: "Cut",
        name: "Switch all cuts off or on",
        key: "shift+t",
        run: () => {
          const { cuts: now, change } = useViewState.getState();
          const on = now.some((cut) => !cut.off);
          if (!now.length) return useSession.getState().say("There are no cuts. Make one on the Cuts desk.");
          change({ cuts: now.map((cut) => ({ ...cut, off: on })) }, `switched all cuts ${on ? "off" : "on"}`);
        },
      },
    ];
  }, [cuts, federation, stage]);
}
