import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api } from "../../api/client";
import { usePerson } from "../../api/person";
import { keys } from "../../api/queries";
import { useTogether } from "../together/togetherState";
import { useOpen } from "../useStage";

/** Whom one may mean: oneself, who is or was here, and who was named in topics and meetings; each once, by name. */
export function useKnownPeople(): readonly string[] {
  const { projectId } = useOpen();
  const own = usePerson((s) => s.name);
  const here = useTogether((s) => s.people);
  const { data } = useQuery({
    queryKey: keys.people(projectId),
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/people", { params: { path: { project_id: projectId } } })),
  });
  return useMemo(() => {
    const all = [own, ...here.map(({ name }) => name), ...(data ?? [])];
    return [...new Set(all.map((name) => name.trim()).filter(Boolean))].sort((a, b) => a.localeCompare(b));
  }, [own, here, data]);
}
