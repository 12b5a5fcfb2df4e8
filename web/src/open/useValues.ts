import { useQuery } from "@tanstack/react-query";
import { answerOf, api } from "../api/client";
import { ATTRIBUTES } from "../api/constants";
import { useOpen } from "./useStage";

/** The attributes whose values are offered to choose from. */
export const LISTED = ATTRIBUTES.filter((each) => each.listed).map(({ what }) => what);
export type Valued = (typeof LISTED)[number];

/** What components have for something, in order; nothing is asked where nothing is meant. */
export function useValues(what: Valued | undefined) {
  const { projectId, federation } = useOpen();
  return useQuery({
    queryKey: ["values", projectId, federation.version, what],
    enabled: what !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/values/{what}", {
          params: { path: { project_id: projectId, what: what ?? "system" } },
        }),
      ),
  });
}
