import { useMemo } from "react";
import type { Action } from "../open/action";
import { levelAt } from "../open/levels";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { liftLid, storeyMeant } from "./lid";
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
    const here = () => levelAt(federation.levels, stage()?.main.middle().z ?? 0);
    return [
      { group: "Cut", name: "Cuts", key: "t", run: desk },
      { group: "Cut", name: "Cut this storey from above at 1.2 m", run: opening(() => cuts.storey(here())) },
      {
        group: "Cut",
        name: "Lift or replace the lid of this storey",
        key: "shift+o",
        run: () => {
          const view = stage();
          const seen = view?.main.middle().z ?? 0;
          liftLid(federation, view, storeyMeant(federation, view?.pose.eye.z ?? seen, seen));
        },
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
