import { useCallback, useEffect, useLayoutEffect, useRef } from "react";
import type { Federation, View } from "../api/client";
import { usePerson } from "../api/person";
import { type Addressed, fromAddress, toAddress } from "../camera/address";
import { fromView, toView } from "../open/document";
import { useHabits } from "../open/habits";
import { linksOf } from "../open/links";
import { firstLook } from "../open/looking/firstLook";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useStoreyFollows } from "../open/plan/storey";
import { useKeyPlan } from "../open/plan/useInstrument";
import { useSelection } from "../open/selection";
import { useSession, withErrorNotice } from "../open/session";
import { announce } from "../open/trail/cause";
import { trailOf, trails, useTrail } from "../open/trail/trail";
import { useTrailKeeper } from "../open/trail/useTrailKeeper";
import { useOpen } from "../open/useStage";
import { keepChanges, keepLeaving, keepView, keptChanges, keptView, takeLeaving } from "../open/views/left";
import { useLinkedViewpoint, useShowViewpoint } from "../open/views/viewpoints";
import { EVERYTHING, isPlain, useViewState } from "../open/visibility/viewState";
import { counted } from "../parts/words";
import { gridOf } from "../stage/geometry/snapping";
import type { Pose } from "../stage/pose";
import type { Stage } from "../stage/stage";
import { useLinkedTopic } from "../topics/useLinkedTopic";
import { fetchDesks } from "./Desk";

/**
 * What is seen first: the viewpoint or the view that a link names, else the project as this
 * person left it, else its home, else everything from the front.
 */
export function Beginning() {
  useStoreyFollows();
  const { federation, stage, projectId } = useOpen();
  const person = usePerson((s) => s.name);
  const { fitTo } = useCameraCommands();
  const say = useSession((s) => s.say);
  useTrailKeeper();
  const ready = useTrail("stage", (s) => s.of === trailOf(projectId, person));
  const linked = useLinkedViewpoint();
  useLinkedTopic();
  const show = useShowViewpoint();
  const begun = useRef("");
  const something = federation.models.length > 0;
  const plan = useKeyPlan(0);
  useEffect(() => {
    const view = stage();
    if (view && plan) view.building.grid = gridOf(plan.axes);
  }, [stage, plan]);
  const follow = useCallback(
    (addressed: Addressed) => {
      const { pose, look } = fromView(federation, addressed.view);
      useViewState.getState().see(look, "opened a link");
      if (addressed.trouble) say(addressed.trouble);
      announce("by its address");
      stage()?.go(pose, true);
    },
    [federation, say, stage],
  );
  useEffect(() => {
    if (!ready || !something) return;
    // A link pasted over this page's own address loads nothing: the browser only says that it changed.
    const pasted = async (hash: string) => {
      const addressed = await fromAddress(hash, federation, linksOf(projectId));
      if (addressed && begun.current) follow(addressed);
    };
    // The page may have written the address of a view of before over it by the time that this is told.
    const changed = ({ newURL }: HashChangeEvent) => void withErrorNotice(() => pasted(new URL(newURL).hash));
    window.addEventListener("hashchange", changed);
    return () => window.removeEventListener("hashchange", changed);
  }, [ready, something, federation, projectId, follow]);
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
      const links = linksOf(projectId);
      const { see, begin: beginWith } = useViewState.getState();
      const leaving = takeLeaving(projectId, person, window.location.hash);
      const left = leaving?.view ?? (await keptView("left", projectId, person));
      const changes = leaving?.changes ?? (await keptChanges(projectId, person));
      // The address carries the view to a tenth of a millimetre; what this browser kept is exact.
      const same = leaving || (left && (await toAddress(left, links)) === window.location.hash);
      const addressed = same ? null : await fromAddress(window.location.hash, federation, links);
      if (addressed) return follow(addressed);
      const view = left ?? federation.home?.view;
      if (!view)
        return fitTo({ kind: "all" }, { ...firstLook(federation), cause: "as opened", atOnce: true });
      const { pose, look } = fromView(federation, view);
      if (left && useHabits.getState().reopen === "reset" && !isPlain(look)) {
        say("Opened with everything shown. Undo brings back what was hidden.");
        beginWith(look, changes);
        see(EVERYTHING, "opened with everything shown");
      } else {
        beginWith(look, left ? changes : undefined);
        if (left && look.rules.length)
          say(
            `Opened as you left it, with ${counted(look.rules.length, "rule")} for hidden or faded components.`,
          );
      }
      announce(left ? "as opened" : "home");
      stage()?.go(pose, true);
    };
    // Where that fails the building is seen all the same, from somewhere.
    void withErrorNotice(begin).then(() => stage()?.begin());
  }, [ready, linked, show, something, fitTo, follow, federation, person, projectId, say, stage]);
  return null;
}

/** When the eye rests, or something is shown or hidden, the address and this browser know. */
export function useRest(federation: Federation, projectId: string, stage: () => Stage | null) {
  const latest = useRef(federation);
  latest.current = federation;
  const last = useRef<View | null>(null);
  useEffect(
    () => () => {
      last.current = null;
    },
    [],
  );
  const keep = useCallback(
    (pose: Pose) => {
      fetchDesks();
      const seen = useViewState.getState();
      const view = toView(latest.current, pose, seen, useSelection.getState().refs);
      const person = usePerson.getState().name;
      void keepView("left", projectId, person, view);
      void keepChanges(projectId, person, seen.history);
      last.current = view;
      void toAddress(view, linksOf(projectId)).then(
        (hash) => {
          if (last.current === view)
            window.history.replaceState(window.history.state, "", `/p/${projectId}${hash}`);
        },
        () => undefined, // the address follows once the server can be reached again
      );
    },
    [projectId],
  );
  // Who leaves before the eye has rested finds it where it was all the same.
  useLayoutEffect(() => {
    const leave = () => {
      const view = stage();
      if (!view || trails.stage.getState().openedId === null) return;
      const left = toView(
        latest.current,
        view.navigation.goal,
        useViewState.getState(),
        useSelection.getState().refs,
      );
      const { history } = useViewState.getState();
      const { hash } = window.location;
      keepLeaving(projectId, usePerson.getState().name, { view: left, hash, changes: history });
    };
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [projectId, stage]);
  useEffect(
    () =>
      useViewState.subscribe((now, before) => {
        const view = stage();
        const same =
          now.rules === before.rules &&
          now.depthM === before.depthM &&
          now.cuts === before.cuts &&
          now.measures === before.measures &&
          now.history === before.history;
        // Before the first place there is nothing yet that was left.
        if (view && !same && trails.stage.getState().openedId !== null) keep(view.seen);
      }),
    [keep, stage],
  );
  return keep;
}
