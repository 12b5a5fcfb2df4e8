import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { groupedBy, scheduleQuery } from "../api/queries";
import { useOpen } from "./useStage";

/** Says what type a component is of, by its dense number; nothing for one of none, and until the server has said so. */
export function useTypes(): (component: number) => string {
  const { projectId, federation } = useOpen();
  const { data } = useQuery({
    ...scheduleQuery(projectId, federation.version, groupedBy("type")),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return useMemo(() => {
    if (data?.version !== federation.version) return () => "";
    return (component) => data.groups[data.groupOf[component] ?? -1]?.key[0] ?? "";
  }, [data, federation]);
}
