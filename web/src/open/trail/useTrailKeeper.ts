import { useEffect, useRef } from "react";
import type { Federation } from "../../api/client";
import { usePerson } from "../../api/person";
import type { Cause } from "../../stage/gestures/host";
import type { Stage } from "../../stage/stage";
import { DRAWINGS, type ViewKind } from "../../stage/view";
import { poseOf, toView } from "../document";
import { drawingShown, showDrawing } from "../drawings/shown";
import { besideFreest, NOTHING } from "../looking/covered";
import { useSelection } from "../selection";
import { useOpen } from "../useStage";
import { useViewState } from "../visibility/viewState";
import { announce, causeOf } from "./cause";
import { changeTrail, openTrail, type Place, sameEye, stepped, trails, withPlace } from "./trail";

const PICTURE_PX = 160;

/** Keep the place where the eye of a view came to rest. */
export function keepPlace(stage: Stage, federation: Federation, cause: Cause, kind: ViewKind): void {
  const view = kind === "stage" ? stage.main : stage.drawings[kind];
  const trail = trails[kind].getState();
  if (!view || !trail.of) return;
  const drawing = kind === "stage" ? null : drawingShown(kind);
  const told = causeOf(cause, kind);
  const seen = toView(federation, view.seen, useViewState.getState(), useSelection.getState().refs);
  const here = trail.places[trail.at];
  const known = [here, trail.places.at(-1)].some((place) => place && sameEye(place.view, seen));
  const next = withPlace(trail, {
    view: seen,
    cause: trail.places.length || drawing ? told : "as opened",
    // One that is there already is not drawn again.
    picture: known
      ? ""
      : stage.pictures.ofPlace(
          PICTURE_PX,
          view,
          drawing ? NOTHING : besideFreest(stage.canvas, stage.aspect),
        ),
    restedMs: Date.now(),
    ...(drawing ? { drawing } : {}),
  });
  if (next !== trail || trail.openedId === null) changeTrail(kind, next);
}

/** Take up this person's trails when the project opens. */
export function useTrailKeeper(): void {
  const { projectId, federation } = useOpen();
  const name = usePerson((s) => s.name);
  const origin = useRef(federation.origin_m);
  useEffect(() => {
    void openTrail("stage", projectId, name, origin.current);
    for (const kind of DRAWINGS) void openTrail(kind, projectId, name, origin.current);
  }, [projectId, name]);
}

/** Going along a Trail. */
export function useTrailSteps(kind: ViewKind = "stage") {
  const { stage, federation } = useOpen();
  const goTo = (index: number | null) => {
    const trail = trails[kind].getState();
    const place: Place | undefined = index === null ? undefined : trail.places[index];
    const view = stage();
    if (index === null || !place || !view) return;
    if (kind === "stage" && view.navigation.locked) return;
    announce(place.cause, kind);
    changeTrail(kind, { places: trail.places, at: index });
    if (kind === "stage") view.go(poseOf(place.view, federation.origin_m));
    else if (place.drawing) showDrawing(view, kind, place.drawing, poseOf(place.view, federation.origin_m));
  };
  return {
    goTo,
    back: () => {
      const view = stage();
      const seen = kind === "stage" ? view?.main : view?.drawings[kind];
      // Who goes back before the eye came to rest leaves a place all the same, and comes to the one before it.
      if (view && seen && !(kind === "stage" && view.navigation.locked)) {
        seen.navigation.arrive();
        keepPlace(view, federation, seen.navigation.cause, kind);
      }
      goTo(stepped(trails[kind].getState(), -1));
    },
    forward: () => goTo(stepped(trails[kind].getState(), 1)),
    first: () => {
      const { places, openedId } = trails[kind].getState();
      const index = places.findIndex((p) => p.id === openedId);
      goTo(index >= 0 ? index : places.length ? 0 : null);
    },
  };
}
