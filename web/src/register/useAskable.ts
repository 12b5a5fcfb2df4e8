import { useQuery } from "@tanstack/react-query";
import { answerOf, api } from "../api/client";
import { useOpen } from "../open/useStage";

/** Every property and quantity that components of the building have. */
export function useAskable() {
  const { projectId, federation } = useOpen();
  return useQuery({
    queryKey: ["askable", projectId, federation.version],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/askable", { params: { path: { project_id: projectId } } }),
      ),
  });
}
