import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, bytesOf, taken } from "../api/client";
import { useOpen } from "./useStage";

/** Says what type a component is of, by its dense number; nothing for one of none, and until the server has said so. */
export function useTypes(): (component: number) => string {
  const { projectId, federation } = useOpen();
  const { data } = useQuery({
    queryKey: ["schedule", projectId, federation.version, "types"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      taken(
        api.POST("/api/projects/{project_id}/schedule", {
          params: { path: { project_id: projectId } },
          body: { steps: ["type"], sums: [], conditions: [], shown_by: null },
        }),
      ),
  });
  return useMemo(() => {
    if (data?.version !== federation.version) return () => "";
    const groupOf = new Int32Array(bytesOf(data.group_of));
    return (component) => data.groups[groupOf[component] ?? -1]?.key[0] ?? "";
  }, [data, federation]);
}
