import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";

const SERVER = ["server"] as const;
const LOOK_MS = 5000;

/** How the server is, looked at now and then. */
export function useServer() {
  return useQuery({
    queryKey: [...SERVER, "state"],
    queryFn: () => answerOf(api.GET("/api/server")),
    refetchInterval: LOOK_MS,
  });
}

/** All projects of the server. */
export function useServerProjects() {
  return useQuery({
    queryKey: [...SERVER, "projects"],
    queryFn: () => answerOf(api.GET("/api/server/projects")),
  });
}

/** What the owners of the server do to a project. */
export function useServerProjectActs(projectId: string) {
  const client = useQueryClient();
  const onSettled = () => client.invalidateQueries({ queryKey: SERVER });
  const params = { path: { project_id: projectId } };
  const limit = useMutation({
    mutationFn: (limits: Shapes["ProjectLimits"] | null) =>
      answerOf(api.PUT("/api/server/projects/{project_id}/limits", { params, body: { limits } })),
    onSettled,
  });
  const giveOwner = useMutation({
    mutationFn: (key: string) =>
      answerOf(api.POST("/api/server/projects/{project_id}/owners", { params, body: { key } })),
    onSettled,
  });
  return { limit, giveOwner };
}
