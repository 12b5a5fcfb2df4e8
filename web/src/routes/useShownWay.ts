import { useSession } from "../open/session";
import { type RouteAnswer, useRouteState, wayShown } from "./routeState";

/** The way that is drawn: as long as its desk is open, unless it was put away. */
export function useShownWay(): RouteAnswer | null {
  const open = useSession((s) => s.task === "routes" && !s.folded.desk);
  const way = useRouteState((s) => (s.away ? null : wayShown(s)));
  return open ? way : null;
}
