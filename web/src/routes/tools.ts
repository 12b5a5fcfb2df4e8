import { pointTool } from "../open/tools";
import type { Tool } from "../stage/tools/tool";
import { useRouteState } from "./routeState";

/** Says by a point of a floor where a route begins or ends. */
export function endTool(which: "start" | "end"): Tool {
  const about = {
    name: `route ${which}`,
    prompt: `Click the floor where the route ${which === "start" ? "begins" : "ends"}.`,
  };
  return pointTool(about, ({ point }) => {
    useRouteState.setState({ [which]: { point_m: point.toArray(), label: "a point" } });
    return "done";
  });
}
