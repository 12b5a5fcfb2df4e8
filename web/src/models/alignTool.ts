import type { ModelCard } from "../api/client";
import { find } from "../open/numbering";
import { useSession } from "../open/session";
import { pointTool } from "../open/tools";
import { useViewState } from "../open/visibility/viewState";
import type { Tool } from "../stage/tools/tool";
import { useAligning } from "./alignState";

/** Picks two points of a model that is to be aligned. */
export function alignTool({ id, name }: ModelCard): Tool {
  return pointTool(
    {
      name: "align",
      prompt: "Click a point of the model to align. The cursor snaps to corners and edges.",
      exact: true,
      cancel: () => {
        const { points, stop } = useAligning.getState();
        if (points.length < 2) stop();
      },
    },
    ({ component, point }) => {
      const { federation } = useViewState.getState();
      const hit = federation && find(federation, component)?.model;
      if (hit && hit.id !== id) {
        useSession
          .getState()
          .say(`That is a point of ${hit.name}. Click one of ${name}, or hide what is in front of it.`);
        return "more";
      }
      useAligning.getState().add(point.toArray());
      return useAligning.getState().points.length < 2 ? "more" : "done";
    },
  );
}
