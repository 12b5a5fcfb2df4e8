import { useCallback, useEffect, useRef } from "react";
import type { Federation } from "../api/client";
import { fromAddress, toAddress } from "../camera/address";
import { firstLook } from "../camera/firstLook";
import { useLook } from "../camera/useLook";
import { useKeyPlan } from "../keyplan/useInstrument";
import { usePerson } from "../people/person";
import type { Pose } from "../stage/pose";
import { crossingsOf } from "../stage/snapping";
import type { Stage } from "../stage/stage";
import { keepView, keptView } from "../trail/left";
import { trailOf, trails, useTrail } from "../trail/trail";
import { useTrailKeeper } from "../trail/useTrailKeeper";
import { useHome } from "./home";
import { useSession } from "./session";
import { useOpen } from "./useStage";
import { toView } from "./view";
import { useLinkedViewpoint, useShowViewpoint } from "./viewpoints";

/**
 * What is seen first: the viewpoint or the view that a link names, else the project as this
 * person left it, else its home, else everything from the front.
 */
export function Beginning() {
  const { federation, stage, projectId } = useOpen();
  const person = usePerson((s) => s.name);
  const { fitTo } = useLook();
  const home = useHome();
  const say = useSession((s) => s.say);
  useTrailKeeper();
  const ready = useTrail("stage", (s) => s.of === trailOf(projectId, person));
  const linked = useLinkedViewpoint();
  const show = useShowViewpoint();
  const begun = useRef("");
  const something = federation.models.length > 0;
  const plan = useKeyPlan(0);
  useEffect(() => {
    const view = stage();
    if (view && plan) view.crossings = crossingsOf(plan.axes);
  }, [stage, plan]);
  useEffect(() => {
    if (!ready || !something) return;
    if (linked.wanted) {
      if (linked.viewpoint && begun.current !== linked.viewpoint.id) {
        begun.current = linked.viewpoint.id;
        void show(linked.viewpoint, true);
      }
      return;
    }
    if (begun.current) return;
    begun.current = "all";
    const begin = async () => {
      const addressed = fromAddress(window.location.hash, federation);
      const left = await keptView("left", projectId, person);
      // The address carries the view to a tenth of a millimetre; what this browser kept is exact.
      const same = left && toAddress(left) === window.location.hash;
      if (addressed && !same) {
        home.show(addressed.view, false, "by its address", true);
        if (addressed.unnamed)
          say(
            `The address could not name ${addressed.unnamed} components that differ one by one; keep the view as a viewpoint to send them too.`,
          );
      } else if (left) home.show(left, false, "as opened", true);
      else if (federation.home) home.show(federation.home.view, false, "home", true);
      else await fitTo({ kind: "all" }, firstLook(federation), "as opened", true);
    };
    void begin();
  }, [ready, linked, show, something, fitTo, federation, home, person, projectId, say]);
  return null;
}

/** When the eye rests, or something is shown or hidden, the address and this browser know. */
export function useRest(federation: Federation, projectId: string, stage: () => Stage | null) {
  const latest = useRef(federation);
  latest.current = federation;
  const keep = useCallback(
    (pose: Pose) => {
      const { visibility, picked } = useSession.getState();
      const view = toView(latest.current, pose, visibility, picked);
      window.history.replaceState(window.history.state, "", `/p/${projectId}${toAddress(view)}`);
      void keepView("left", projectId, usePerson.getState().name, view);
    },
    [projectId],
  );
  useEffect(
    () =>
      useSession.subscribe((now, before) => {
        const view = stage();
        // Before the first place there is nothing yet that was left.
        if (view && now.visibility !== before.visibility && trails.stage.getState().openedId !== null)
          keep(view.seen);
      }),
    [keep, stage],
  );
  return keep;
}
