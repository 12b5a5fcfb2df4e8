import { useSession } from "../open/session";
import { useWalkState } from "../open/walking/walkState";
import { answersNow, type RouteAnswer, useRouteState, wayShown } from "./routeState";

/** The body that the route is for: the walker's until another one is chosen. */
export function useRouteBody(): string {
  const walker = useWalkState((s) => s.body);
  return useRouteState((s) => s.body) ?? walker;
}

/**
 * The way that is drawn: as long as its desk is open, unless it was put away; none while another one is asked for, since
 * nobody could tell whose answer it is.
 */
export function useShownWay(): RouteAnswer | null {
  const open = useSession((s) => s.task === "routes" && !s.folded.desk);
  const walker = useWalkState((s) => s.body);
  const way = useRouteState((s) => (s.away || !answersNow(s, walker) ? null : wayShown(s)));
  return open ? way : null;
}
