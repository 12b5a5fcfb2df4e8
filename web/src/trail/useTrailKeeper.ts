import { useEffect } from "react";
import { drawingShown, showDrawing } from "../beside/shown";
import { usePerson } from "../people/person";
import { useOpen } from "../project/useStage";
import type { Cause } from "../stage/navigationHost";
import { fromShape, toShape } from "../stage/pose";
import type { Stage } from "../stage/stage";
import type { ViewKind } from "../stage/view";
import { announce, causeOf } from "./cause";
import { changeTrail, openTrail, type Place, stepped, trails, withPlace } from "./trail";

const PICTURE_PX = 160;

/** Keep the place where the eye of a view came to rest. */
export function keepPlace(stage: Stage, cause: Cause, kind: ViewKind): void {
  const view = kind === "stage" ? stage.main : stage.drawing;
  const trail = trails[kind].getState();
  if (!view || !trail.of) return;
  const drawing = kind === "drawing" ? drawingShown() : null;
  const next = withPlace(trail, {
    pose: toShape(view.seen),
    cause: trail.places.length || drawing ? causeOf(cause, kind) : "as opened",
    picture: stage.snapshot(PICTURE_PX, "image/jpeg", view),
    ...(drawing ? { drawing } : {}),
  });
  if (next !== trail || trail.openedId === null) changeTrail(kind, next);
}

/** Take up this person's trails when the project opens. */
export function useTrailKeeper(): void {
  const { projectId } = useOpen();
  const name = usePerson((s) => s.name);
  useEffect(() => {
    void openTrail("stage", projectId, name);
    void openTrail("drawing", projectId, name);
  }, [projectId, name]);
}

/** Going along a Trail. */
export function useTrailSteps(kind: ViewKind = "stage") {
  const { stage } = useOpen();
  const goTo = (index: number | null) => {
    const trail = trails[kind].getState();
    const place: Place | undefined = index === null ? undefined : trail.places[index];
    const view = stage();
    if (index === null || !place || !view) return;
    if (kind === "stage" && view.navigation.locked) return;
    announce(place.cause, kind);
    changeTrail(kind, { places: trail.places, at: index });
    if (kind === "stage") view.go(fromShape(place.pose));
    else if (place.drawing) showDrawing(view, place.drawing, fromShape(place.pose));
  };
  return {
    goTo,
    back: () => goTo(stepped(trails[kind].getState(), -1)),
    forward: () => goTo(stepped(trails[kind].getState(), 1)),
    first: () => {
      const { places, openedId } = trails[kind].getState();
      const index = places.findIndex((p) => p.id === openedId);
      goTo(index >= 0 ? index : places.length ? 0 : null);
    },
  };
}
