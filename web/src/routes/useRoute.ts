import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api, type Shapes } from "../api/client";
import { usePerson } from "../api/person";
import { keys } from "../api/queries";
import { useSession, withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { useWalkState } from "../open/walking/walkState";
import { noAnswer, type RouteAnswer, useRouteState, wishNow } from "./routeState";

/** Where a way is tight, and where it ends. */
export function tightPlaces(answer: RouteAnswer): Vector3[] {
  const places = [answer.narrowest, answer.lowest, ...answer.pinches].flatMap((p) => (p ? [p.at_m] : []));
  if (answer.blocked) places.push(answer.blocked.nearest_m);
  return places.map((at) => new Vector3().fromArray(at));
}

/** Counts what was asked, so that an answer to something else is not shown. */
let asks = 0;

/** Finding, keeping and deleting routes. */
export function useRoute() {
  const client = useQueryClient();
  const { projectId } = useOpen();
  const { name: author } = usePerson();
  return useMemo(() => {
    const path = { params: { path: { project_id: projectId } } };
    const say = useSession.getState().say;
    const wish = () => wishNow(useRouteState.getState(), useWalkState.getState().body);
    const again = () => client.invalidateQueries({ queryKey: keys.routes(projectId) });
    return {
      /** Find the way that is asked for; where the building `changed`, the same one again, to tell the difference. */
      find: async (changed = false) => {
        const { asked, first } = useRouteState.getState();
        const body = changed ? (asked ?? wish()) : wish();
        if (!body) return;
        const one = ++asks;
        useRouteState.setState({ searching: true });
        await withErrorNotice(async () => {
          const answer = await answerOf(
            api.POST("/api/projects/{project_id}/routes/find", { ...path, body }),
          );
          if (one !== asks) return;
          useRouteState.setState({ ...noAnswer, asked: body, answer, first: changed ? first : answer });
        });
        if (one === asks) useRouteState.setState({ searching: false });
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
      keep: (name: string) =>
        withErrorNotice(async () => {
          const asked = useRouteState.getState().asked ?? wish();
          if (!asked) return;
          await answerOf(
            api.POST("/api/projects/{project_id}/routes", { ...path, body: { name, author, wish: asked } }),
          );
          await again();
        }),
      remove: (route: Shapes["SavedRoute"]) =>
        withErrorNotice(async () => {
          const one = { params: { path: { route_id: route.id } } };
          await answerOf(api.DELETE("/api/routes/{route_id}", one));
          await again();
          say(
            `"${route.name}" was deleted.`,
            () =>
              void withErrorNotice(async () => {
                await answerOf(api.POST("/api/routes/{route_id}/restore", one));
                await again();
              }),
          );
        }),
    };
  }, [client, projectId, author]);
}
