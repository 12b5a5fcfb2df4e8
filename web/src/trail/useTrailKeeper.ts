import { useEffect } from "react";
import type { PoseShape } from "../api/client";
import { usePerson } from "../people/person";
import { useOpen } from "../project/useStage";
import { fromShape, toShape } from "../stage/pose";
import type { Stage } from "../stage/stage";
import { announce, causeOf } from "./cause";
import { changeTrail, openTrail, stepped, useTrail, withPlace } from "./trail";

const PICTURE_PX = 160;

/** Keep the place where the eye came to rest. */
export function keepPlace(stage: Stage, cause: Parameters<typeof causeOf>[0]): void {
  const pose = toShape(stage.pose);
  const trail = useTrail.getState();
  if (!trail.of) return;
  const next = withPlace(trail, {
    pose,
    cause: trail.places.length ? causeOf(cause) : "as opened",
    picture: stage.snapshot(PICTURE_PX, "image/jpeg"),
  });
  if (next !== trail || trail.openedId === null) changeTrail(next);
}

/** Take up this person's trail when the project opens. */
export function useTrailKeeper(): void {
  const { projectId } = useOpen();
  const name = usePerson((s) => s.name);
  useEffect(() => {
    void openTrail(projectId, name);
  }, [projectId, name]);
}

/** Going along the Trail. */
export function useTrailSteps() {
  const { stage } = useOpen();
  const goTo = (index: number | null) => {
    const trail = useTrail.getState();
    const place = index === null ? undefined : trail.places[index];
    const view = stage();
    if (index === null || !place || !view || view.navigation.locked) return;
    announce(place.cause);
    changeTrail({ places: trail.places, at: index });
    view.go(fromShape(place.pose as PoseShape));
  };
  return {
    goTo,
    back: () => goTo(stepped(useTrail.getState(), -1)),
    forward: () => goTo(stepped(useTrail.getState(), 1)),
    first: () => {
      const { places, openedId } = useTrail.getState();
      const index = places.findIndex((p) => p.id === openedId);
      goTo(index >= 0 ? index : places.length ? 0 : null);
    },
  };
}
