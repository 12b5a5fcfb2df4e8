import { useQuery } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";
import { plainName } from "../open/plainName";
import { useOpen } from "../open/useStage";
import type { Named } from "../parts/PickOne";

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

/** A property or quantity to choose: in plain words, beside its name and set in the file. */
export function askedName({ kind, group, name }: Shapes["Askable"]): Named {
  return {
    value: `${kind}:${group}.${name}`,
    name: plainName(name),
    beside: plainName(name) === name ? group : `${name} · ${group}`,
  };
}
