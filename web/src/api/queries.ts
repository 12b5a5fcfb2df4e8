import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, type Shapes, taken } from "./client";

export const keys = {
  projects: ["projects"] as const,
  federation: (id: string) => ["project", id, "federation"] as const,
  models: (id: string) => ["project", id, "models"] as const,
  viewpoints: (id: string) => ["project", id, "viewpoints"] as const,
  walking: (id: string, body: string) => ["project", id, "walking", body] as const,
  walkRule: (id: string) => ["project", id, "walking rule"] as const,
  routes: (id: string) => ["project", id, "routes"] as const,
};

export function useProjects() {
  return useQuery({
    queryKey: keys.projects,
    queryFn: () => taken(api.GET("/api/projects")),
    refetchInterval: (query) => (query.state.data?.some((p) => p.reading > 0) ? 1500 : false),
  });
}

export function useFederation(projectId: string) {
  return useQuery({
    queryKey: keys.federation(projectId),
    queryFn: () =>
      taken(
        api.GET("/api/projects/{project_id}/federation", { params: { path: { project_id: projectId } } }),
      ),
  });
}

export function useModels(projectId: string) {
  return useQuery({
    queryKey: keys.models(projectId),
    queryFn: () =>
      taken(api.GET("/api/projects/{project_id}/models", { params: { path: { project_id: projectId } } })),
  });
}

export function useViewpoints(projectId: string) {
  return useQuery({
    queryKey: keys.viewpoints(projectId),
    queryFn: () =>
      taken(
        api.GET("/api/projects/{project_id}/viewpoints", { params: { path: { project_id: projectId } } }),
      ),
  });
}

/** The walk map of a body: what is asked, wherever it is needed. */
export function walkingOf(projectId: string, body: string) {
  return queryOptions({
    queryKey: keys.walking(projectId, body),
    queryFn: () =>
      taken(
        api.GET("/api/projects/{project_id}/walking", {
          params: { path: { project_id: projectId }, query: { body } },
        }),
      ),
  });
}

export function useWalking(projectId: string, body: string) {
  return useQuery(walkingOf(projectId, body));
}

export function useWalkRule(projectId: string) {
  return useQuery({
    queryKey: keys.walkRule(projectId),
    queryFn: () =>
      taken(
        api.GET("/api/projects/{project_id}/walking/rule", { params: { path: { project_id: projectId } } }),
      ),
  });
}

export function useRoutes(projectId: string) {
  return useQuery({
    queryKey: keys.routes(projectId),
    queryFn: () =>
      taken(api.GET("/api/projects/{project_id}/routes", { params: { path: { project_id: projectId } } })),
  });
}

export function useComponent(modelId: string, globalId: string) {
  return useQuery({
    queryKey: ["component", modelId, globalId],
    queryFn: () =>
      taken(
        api.GET("/api/models/{model_id}/components/{global_id}", {
          params: { path: { model_id: modelId, global_id: globalId } },
        }),
      ),
    staleTime: 60_000,
  });
}

/** Fetch again whatever belongs to the project when the server says that it changed. */
export function useFollow(projectId: string): void {
  const client = useQueryClient();
  useEffect(() => {
    const source = new EventSource(`/api/projects/${projectId}/events`);
    let waiting: number | undefined;
    const heard = () => {
      window.clearTimeout(waiting);
      waiting = window.setTimeout(() => {
        void client.invalidateQueries({ queryKey: ["project", projectId] });
        void client.invalidateQueries({ queryKey: ["component"] });
      }, 120);
    };
    source.addEventListener("changed", heard);
    return () => {
      window.clearTimeout(waiting);
      source.close();
    };
  }, [client, projectId]);
}

type ModelAct = "cancel" | "retry" | "restore" | "stand";

export function useModelAct(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, act }: { id: string; act: ModelAct | "remove" }) => {
      const params = { params: { path: { model_id: id } } };
      switch (act) {
        case "remove":
          return taken(api.DELETE("/api/models/{model_id}", params));
        case "cancel":
          return taken(api.POST("/api/models/{model_id}/cancel", params));
        case "retry":
          return taken(api.POST("/api/models/{model_id}/retry", params));
        case "restore":
          return taken(api.POST("/api/models/{model_id}/restore", params));
        case "stand":
          return taken(api.POST("/api/models/{model_id}/stand", params));
      }
    },
    onSettled: () => client.invalidateQueries({ queryKey: ["project", projectId] }),
  });
}

export function useDiscipline(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, code }: { id: string; code: string | null }) =>
      taken(
        api.PUT("/api/models/{model_id}/discipline", {
          params: { path: { model_id: id } },
          body: { code },
        }),
      ),
    onSettled: () => client.invalidateQueries({ queryKey: ["project", projectId] }),
  });
}

export function useViewpointActs(projectId: string) {
  const client = useQueryClient();
  const onSettled = () => client.invalidateQueries({ queryKey: keys.viewpoints(projectId) });
  const at = (id: string) => ({ params: { path: { viewpoint_id: id } } });
  return {
    keep: useMutation({
      mutationFn: (body: Shapes["NewViewpoint"]) =>
        taken(
          api.POST("/api/projects/{project_id}/viewpoints", {
            params: { path: { project_id: projectId } },
            body,
          }),
        ),
      onSettled,
    }),
    rename: useMutation({
      mutationFn: ({ id, name }: { id: string; name: string }) =>
        taken(api.PUT("/api/viewpoints/{viewpoint_id}/name", { ...at(id), body: { name } })),
      onSettled,
    }),
    remove: useMutation({
      mutationFn: (id: string) => taken(api.DELETE("/api/viewpoints/{viewpoint_id}", at(id))),
      onSettled,
    }),
    restore: useMutation({
      mutationFn: (id: string) => taken(api.POST("/api/viewpoints/{viewpoint_id}/restore", at(id))),
      onSettled,
    }),
  };
}
