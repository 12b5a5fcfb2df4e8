import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { api, taken } from "../api/client";
import { type Measure, useSeen } from "../open/seen";
import { useOpen } from "../open/useStage";
import type { Found } from "./measuring";

/** What was asked, so that an answer to something else is not taken for it. */
function asked(measure: Measure): string {
  return JSON.stringify([measure.id, measure.what]);
}

/** What the measures of the view come to; undefined for one whose answer is not there. */
export function useFound() {
  const { projectId, federation } = useOpen();
  const measures = useSeen((s) => s.measures);
  const wish = measures.map(({ id, what }) => ({ id, what, name: "" }));
  const { data, error } = useQuery({
    queryKey: ["measures", projectId, federation.version, wish],
    enabled: wish.length > 0,
    gcTime: 60_000,
    // While one more is worked out the others stay as they are.
    placeholderData: keepPreviousData,
    queryFn: async () => {
      const { version, found } = await taken(
        api.POST("/api/projects/{project_id}/measures", {
          params: { path: { project_id: projectId } },
          body: { measures: wish },
        }),
      );
      const by = new Map(wish.map((each, k) => [asked(each), found[k]] as const));
      return { version, by };
    },
  });
  const of = useCallback(
    (measure: Measure): Found | undefined =>
      data?.version === federation.version ? data.by.get(asked(measure)) : undefined,
    [data, federation.version],
  );
  return { of, error };
}
