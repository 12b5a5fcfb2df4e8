import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Vector3 } from "three";
import { answerOf, api, bytesOf } from "../api/client";
import { find } from "../open/numbering";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import type { Catches, Segment } from "../stage/geometry/snapping";

function points(text: string): Vector3[] {
  const numbers = new Float64Array(bytesOf(text));
  return Array.from({ length: numbers.length / 3 }, (_, i) => new Vector3().fromArray(numbers, 3 * i));
}

function segments(text: string): Segment[] {
  const ends = points(text);
  return Array.from({ length: ends.length / 2 }, (_, i) => [ends[2 * i], ends[2 * i + 1]] as Segment);
}

/** Lets the stage catch what the core knows of each component, while a tool for exact points is in hand. */
export function useCatches(): void {
  const { stage, federation, projectId } = useOpen();
  const client = useQueryClient();
  const exact = useTools((s) => s.tool?.exact === true);
  useEffect(() => {
    const view = stage();
    if (!view || !exact) return;
    const known = new Map<number, Catches | null>();
    const ask = async (component: number) => {
      const found = find(federation, component);
      if (!found) return;
      const { model, globalId } = found;
      const answer = await client.fetchQuery({
        queryKey: ["catches", projectId, federation.version, model.id, globalId],
        staleTime: Number.POSITIVE_INFINITY,
        gcTime: 300_000,
        queryFn: () =>
          answerOf(
            api.GET("/api/projects/{project_id}/models/{model_id}/catches/{global_id}", {
              params: { path: { project_id: projectId, model_id: model.id, global_id: globalId } },
            }),
          ),
      });
      known.set(component, {
        corners: points(answer.corners),
        middles: points(answer.middles),
        centres: points(answer.centres),
        edges: segments(answer.edges),
        lines: segments(answer.lines),
      });
      stage()?.navigation.askHovered();
    };
    view.aiming.catches = (component) => {
      if (!known.has(component)) {
        known.set(component, null);
        // Without an answer what is drawn is caught; it is asked for again when the component is met again.
        void ask(component).catch(() => known.delete(component));
      }
      return known.get(component) ?? null;
    };
    return () => {
      view.aiming.catches = () => null;
    };
  }, [stage, federation, projectId, client, exact]);
}
