import { useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { answerOf, api, type Shapes } from "../api/client";
import { useOpen } from "../open/useStage";

export type ComponentFound = Shapes["ComponentFound"];

const MOST = 20;

/** Components that the server finds by what is typed, and how many there are; nothing while it has not answered to it. */
export function useComponentsFound(typed: string) {
  const { projectId, federation } = useOpen();
  const wanted = useDeferredValue(typed.trim());
  const { data, error, isFetching } = useQuery({
    queryKey: ["find", projectId, federation.version, wanted],
    enabled: wanted !== "",
    gcTime: 60_000,
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/find", {
          params: { path: { project_id: projectId }, query: { typed: wanted, limit: MOST } },
        }),
      ),
  });
  const asked = wanted !== "" && wanted === typed.trim();
  return {
    found: asked ? (data?.found ?? []) : [],
    count: asked ? (data?.count ?? 0) : 0,
    looking: isFetching || wanted !== typed.trim(),
    trouble: asked && error ? error.message : "",
  };
}
