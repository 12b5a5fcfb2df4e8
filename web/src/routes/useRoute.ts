import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api, type Shapes } from "../api/client";
import { keys } from "../api/queries";
import { DELETION } from "../open/deletion";
import { withErrorNotice } from "../open/session";
import { doAct } from "../open/undoLine";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";
import { useWalkState } from "../open/walking/walkState";
import { noAnswer, type RouteAnswer, useRouteState, wishNow } from "./routeState";

/** Where a way is tight, and where it ends. */
export function tightPlaces(answer: RouteAnswer): Vector3[] {
  const places = [answer.narrowest, answer.lowest, ...answer.pinches].flatMap((p) => (p ? [p.at_m] : []));
  if (answer.blocked) places.push(answer.blocked.nearest_m);
  return places.map((at) => new Vector3().fromArray(at));
}

/** The search that is on; one that is stopped, or followed by another, has no answer. */
let search = new AbortController();

/** Stop the search that is on; what was found before stays as it was. */
export function stopSearch(): void {
  search.abort();
  useRouteState.setState({ searching: null });
}

/** Finding, keeping and deleting routes. */
export function useRoute() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.routes(projectId));
  return useMemo(() => {
    const path = { params: { path: { project_id: projectId } } };
    const drop = (id: string) => doing(() => DELETION.route.remove(id));
    const restore = (id: string) => doing(() => DELETION.route.restore(id));
    const wish = () => wishNow(useRouteState.getState(), useWalkState.getState().body);
    return {
      /** Find the way that is asked for; where the building `changed`, the same one again, to tell the difference. */
      find: async (changed = false) => {
        const { asked, first } = useRouteState.getState();
        const body = changed ? (asked ?? wish()) : wish();
        if (!body) return;
        search.abort();
        search = new AbortController();
        const { signal } = search;
        useRouteState.setState({ searching: Date.now() });
        await withErrorNotice(async () => {
          try {
            const answer = await answerOf(
              api.POST("/api/projects/{project_id}/routes/find", { ...path, body, signal }),
            );
            if (signal.aborted) return;
            useRouteState.setState({ ...noAnswer, asked: body, answer, first: changed ? first : answer });
          } catch (error) {
            if (!signal.aborted) throw error;
          }
        });
        if (!signal.aborted) useRouteState.setState({ searching: null });
      },
      /** The next best ways beside the answer. */
      findOthers: () =>
        withErrorNotice(async () => {
          const { asked: body, answer } = useRouteState.getState();
          if (!body) return;
          const others = await answerOf(
            api.POST("/api/projects/{project_id}/routes/others", { ...path, body }),
          );
          if (useRouteState.getState().answer === answer) useRouteState.setState({ others });
        }),
      keep: async (name: string) => {
        const asked = useRouteState.getState().asked ?? wish();
        if (!asked) return false;
        let made = "";
        const keep = () =>
          doing(async () => {
            const body = { name, wish: asked };
            made = (await answerOf(api.POST("/api/projects/{project_id}/routes", { ...path, body }))).id;
          });
        return doAct({
          name: `kept the route ${name}`,
          undo: () => drop(made),
          redo: () => (made ? restore(made) : keep()),
        });
      },
      remove: (route: Shapes["SavedRoute"]) =>
        doAct(
          {
            name: `deleted the route ${route.name}`,
            undo: () => restore(route.id),
            redo: () => drop(route.id),
          },
          `Deleted the route ${route.name}.`,
        ),
    };
  }, [doing, projectId]);
}
