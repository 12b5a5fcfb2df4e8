import { useQuery } from "@tanstack/react-query";
import { api, taken } from "../api/client";
import { useOpen } from "./useStage";

export type Valued = "system" | "type" | "class" | "material";

/** What components have for something, in order; nothing is asked where nothing is meant. */
export function useValues(what: Valued | undefined) {
  const { projectId, federation } = useOpen();
  return useQuery({
    queryKey: ["values", projectId, federation.version, what],
    enabled: what !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      taken(
        api.GET("/api/projects/{project_id}/values/{what}", {
          params: { path: { project_id: projectId, what: what ?? "system" } },
        }),
      ),
  });
}
