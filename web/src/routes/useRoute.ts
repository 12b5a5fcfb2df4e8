import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { Vector3 } from "three";
import { api, type Shapes, taken } from "../api/client";
import { keys } from "../api/queries";
import { usePerson } from "../people/person";
import { orAloud, useSession } from "../project/session";
import { useOpen } from "../project/useStage";
import { type RouteAnswer, useRouteState } from "./routeState";

/** Draw an answer on the stage, or nothing. */
export function tightPlaces(answer: RouteAnswer): Vector3[] {
  const places = [answer.narrowest, answer.lowest, ...answer.pinches].flatMap((p) => (p ? [p.at_m] : []));
  if (answer.blocked) places.push(answer.blocked.nearest_m);
  return places.map((at) => new Vector3().fromArray(at));
}

/** Finding, keeping and deleting routes. */
export function useRoute() {
  const client = useQueryClient();
  const { projectId } = useOpen();
  const { name: author } = usePerson();
  return useMemo(() => {
    const path = { params: { path: { project_id: projectId } } };
    const say = useSession.getState().say;
    const wish = (): Shapes["RouteWish"] | null => {
      const { start, end, body, stepFree, widthLimitM, heightLimitM } = useRouteState.getState();
      if (!start || !end) return null;
      return {
        start,
        end,
        body,
        step_free: stepFree,
        width_limit_m: widthLimitM,
        height_limit_m: heightLimitM,
      };
    };
    const again = () => client.invalidateQueries({ queryKey: keys.routes(projectId) });
    return {
      /** Find the route that is asked for; `changed` keeps the last answer to tell the difference. */
      find: (changed = false) =>
        orAloud(async () => {
          const body = wish();
          if (!body) return;
          const before = changed ? useRouteState.getState().answer : null;
          const answer = await taken(api.POST("/api/projects/{project_id}/routes/find", { ...path, body }));
          useRouteState.setState({ answer, before });
        }),
      keep: (name: string) =>
        orAloud(async () => {
          const asked = wish();
          if (!asked) return;
          await taken(
            api.POST("/api/projects/{project_id}/routes", { ...path, body: { name, author, wish: asked } }),
          );
          await again();
        }),
      remove: (route: Shapes["SavedRoute"]) =>
        orAloud(async () => {
          const one = { params: { path: { route_id: route.id } } };
          await taken(api.DELETE("/api/routes/{route_id}", one));
          await again();
          say(
            `"${route.name}" was deleted.`,
            () =>
              void orAloud(async () => {
                await taken(api.POST("/api/routes/{route_id}/restore", one));
                await again();
              }),
          );
        }),
    };
  }, [client, projectId, author]);
}
