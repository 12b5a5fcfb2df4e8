import { useCallback, useEffect, useRef } from "react";
import type { Federation } from "../api/client";
import { fromAddress, toAddress } from "../camera/address";
import { firstLook } from "../camera/firstLook";
import { useLook } from "../camera/useLook";
import { useKeyPlan } from "../keyplan/useInstrument";
import { usePerson } from "../people/person";
import type { Pose } from "../stage/pose";
import { crossingsOf } from "../stage/snapping";
import { announce } from "../trail/cause";
import { keepView, keptView } from "../trail/left";
import { trailOf, useTrail } from "../trail/trail";
import { useTrailKeeper } from "../trail/useTrailKeeper";
import { useHome } from "./home";
import { useSession } from "./session";
import { useOpen } from "./useStage";
import { fromView, toView } from "./view";
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
      const addressed = fromAddress(window.location.hash, federation.origin_m);
      const left = await keptView("left", projectId, person);
      // The address carries the view to a tenth of a millimetre; what this browser kept is exact.
      const same =
        left && toAddress(fromView(federation, left).pose, federation.origin_m) === window.location.hash;
      if (addressed && !same) {
        announce("by its address");
        stage()?.go(addressed, true);
      } else if (left) home.show(left, false, "as opened", true);
      else if (federation.home) home.show(federation.home.view, false, "home", true);
      else await fitTo({ kind: "all" }, firstLook(federation), "as opened", true);
    };
    void begin();
  }, [ready, linked, show, something, fitTo, federation, home, person, projectId, stage]);
  return null;
}

/** When the eye rests, the address and this browser know where. */
export function useRest(federation: Federation, projectId: string) {
  const latest = useRef(federation);
  latest.current = federation;
  return useCallback(
    (pose: Pose) => {
      const { visibility, picked } = useSession.getState();
      const address = toAddress(pose, latest.current.origin_m);
      window.history.replaceState(window.history.state, "", `/p/${projectId}${address}`);
      void keepView(
        "left",
        projectId,
        usePerson.getState().name,
        toView(latest.current, pose, visibility, picked),
      );
    },
    [projectId],
  );
}
