import { type QueryClient, queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { answerOf, api, bytesOf, type Shapes } from "./client";
import { fetchFederation } from "./federation";
import { hear } from "./stream";

export const keys = {
  projects: ["projects"] as const,
  federation: (id: string) => ["project", id, "federation"] as const,
  models: (id: string) => ["project", id, "models"] as const,
  viewpoints: (id: string) => ["project", id, "viewpoints"] as const,
  walking: (id: string, body: string) => ["project", id, "walking", body] as const,
  walkRule: (id: string) => ["project", id, "walking rule"] as const,
  tasks: (id: string) => ["project", id, "tasks"] as const,
  meetings: (id: string) => ["project", id, "meetings"] as const,
  topics: (id: string) => ["project", id, "topics"] as const,
  sets: (id: string) => ["project", id, "sets"] as const,
  routes: (id: string) => ["project", id, "routes"] as const,
  mine: (id: string) => ["project", id, "mine"] as const,
  members: (id: string) => ["project", id, "members"] as const,
  people: (id: string) => ["project", id, "people"] as const,
  bin: (id: string) => ["project", id, "bin"] as const,
};

const READING_MS = 1500;
const LOOK_MS = 5000;

export function useProjects(binned = false) {
  return useQuery({
    queryKey: [...keys.projects, binned],
    queryFn: () => answerOf(api.GET("/api/projects", { params: { query: { bin: binned } } })),
    // No stream tells the start page what others do; it looks now and then, and when it is looked at again.
    refetchInterval: (query) => (query.state.data?.some((p) => p.reading > 0) ? READING_MS : LOOK_MS),
    refetchOnWindowFocus: true,
  });
}

export function useFederation(projectId: string) {
  return useQuery({
    queryKey: keys.federation(projectId),
    queryFn: () => fetchFederation(projectId),
  });
}

/** What one may in a project; what it says is not asked again after an error, as of a project that one is not in. */
export function useMine(projectId: string) {
  return useQuery({
    queryKey: keys.mine(projectId),
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/mine", { params: { path: { project_id: projectId } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** The project's models, or those that were taken out. */
export function useModels(projectId: string, bin = false) {
  return useQuery({
    queryKey: [...keys.models(projectId), bin],
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/models", {
          params: { path: { project_id: projectId }, query: { bin } },
        }),
      ),
  });
}

export function useViewpoints(projectId: string) {
  return useQuery({
    queryKey: keys.viewpoints(projectId),
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/viewpoints", { params: { path: { project_id: projectId } } }),
      ),
  });
}

/** The walk map of a body: what is asked, wherever it is needed. */
export function walkingOf(projectId: string, body: string) {
  return queryOptions({
    queryKey: keys.walking(projectId, body),
    queryFn: () =>
      answerOf(
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
      answerOf(
        api.GET("/api/projects/{project_id}/walking/rule", { params: { path: { project_id: projectId } } }),
      ),
  });
}

export function useRoutes(projectId: string) {
  return useQuery({
    queryKey: keys.routes(projectId),
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/routes", { params: { path: { project_id: projectId } } })),
  });
}

export function useComponent(modelId: string, globalId: string) {
  return useQuery({
    queryKey: ["component", modelId, globalId],
    queryFn: () =>
      answerOf(
        api.GET("/api/models/{model_id}/components/{global_id}", {
          params: { path: { model_id: modelId, global_id: globalId } },
        }),
      ),
    staleTime: 60_000,
  });
}

/** What stands within a distance of a component, in one version of the building. */
export function neighboursQuery(modelId: string, globalId: string, withinM: number, version: number) {
  return queryOptions({
    queryKey: ["component", modelId, globalId, "around", withinM, version],
    queryFn: () =>
      answerOf(
        api.GET("/api/models/{model_id}/components/{global_id}/around", {
          params: { path: { model_id: modelId, global_id: globalId }, query: { within_m: withinM } },
        }),
      ),
  });
}

/** The earlier issues of a model. */
export function issuesQuery(projectId: string, modelId: string) {
  return queryOptions({
    queryKey: [...keys.models(projectId), modelId, "issues"],
    queryFn: () =>
      answerOf(api.GET("/api/models/{model_id}/issues", { params: { path: { model_id: modelId } } })),
  });
}

/** A query for another side: `issue:` an earlier one of a model, or `other:` another model. */
function sideOf(against: string) {
  const [kind, id = ""] = against.split(":");
  return kind === "issue" ? { issue: id } : { other: id };
}

/** What a model had that is not there any more, from what it is compared with. */
export function goneQuery(projectId: string, modelId: string, against: string, version: number) {
  return queryOptions({
    queryKey: [...keys.models(projectId), modelId, "gone", against, version],
    queryFn: () =>
      answerOf(
        api.GET("/api/models/{model_id}/gone", {
          params: { path: { model_id: modelId }, query: sideOf(against) },
        }),
      ),
    // Somebody asked to look at it: they are told at once if it cannot be done.
    retry: false,
    gcTime: 60_000,
  });
}

/** What differs in a model from `issue:` an earlier one, or from `other:` another model. */
export function changesQuery(projectId: string, modelId: string, against: string, version: number) {
  return queryOptions({
    queryKey: [...keys.models(projectId), modelId, "changes", against, version],
    queryFn: () =>
      answerOf(
        api.GET("/api/models/{model_id}/changes", {
          params: { path: { model_id: modelId }, query: sideOf(against) },
        }),
      ),
  });
}

/** What a schedule is asked for: what to group by, and what of which components. */
type ScheduleWish = Required<Shapes["ScheduleRequest"]>;

/** Components in groups, in one version of the building, with the group that each of them is in. */
export function scheduleQuery(projectId: string, version: number, wish: ScheduleWish) {
  return queryOptions({
    queryKey: ["schedule", projectId, version, wish],
    queryFn: async () => {
      const answer = await answerOf(
        api.POST("/api/projects/{project_id}/schedule", {
          params: { path: { project_id: projectId } },
          body: wish,
        }),
      );
      return { ...answer, groupOf: new Int32Array(bytesOf(answer.group_of)) };
    },
  });
}

/** The wish for components by one thing, without sums. */
export function groupedBy(step: string, conditions: ScheduleWish["conditions"] = []): ScheduleWish {
  return { steps: [step], sums: [], columns: [], conditions, shown_by: null };
}

/** What components have in common, in one version of the building. */
export function commonQuery(projectId: string, version: number, of: Shapes["These"]["of"]) {
  return queryOptions({
    queryKey: ["projects", projectId, "common", version, of],
    queryFn: () =>
      answerOf(
        api.POST("/api/projects/{project_id}/common", {
          params: { path: { project_id: projectId } },
          body: { kind: "these", of },
        }),
      ),
    retry: false,
    gcTime: 10_000,
    placeholderData: (before) => before,
  });
}

/** What is asked for again when something of a kind changed. */
function concerned(projectId: string, kind: string): readonly (readonly string[])[] {
  switch (kind) {
    case "models":
      return [keys.models(projectId)];
    case "federation":
      return [keys.federation(projectId), keys.models(projectId), ["component"]];
    case "walking":
      return [["project", projectId, "walking"], keys.walkRule(projectId)];
    case "viewpoints":
      return [keys.viewpoints(projectId)];
    case "tasks":
      return [keys.tasks(projectId)];
    case "meetings":
      return [keys.meetings(projectId), keys.people(projectId)];
    case "topics":
      return [keys.topics(projectId), keys.people(projectId)];
    case "sets":
      return [keys.sets(projectId)];
    case "members":
      return [keys.members(projectId), keys.mine(projectId)];
    case "routes":
      return [keys.routes(projectId)];
    default:
      return [keys.federation(projectId), keys.projects];
  }
}

const GATHER_MS = 120;

/** Fetch again what the server says has changed, and everything where something may have been missed. */
export function useFollow(projectId: string): void {
  const client = useQueryClient();
  useEffect(() => {
    const kinds = new Set<string>();
    let waiting: number | undefined;
    const fetchAnew = () => {
      for (const kind of kinds)
        for (const queryKey of concerned(projectId, kind)) void client.invalidateQueries({ queryKey });
      kinds.clear();
    };
    const end = hear(`/api/projects/${projectId}/events`, {
      changed: (kind) => {
        kinds.add(kind);
        window.clearTimeout(waiting);
        waiting = window.setTimeout(fetchAnew, GATHER_MS);
      },
      anew: () => void client.invalidateQueries({ queryKey: ["project", projectId] }),
    });
    return () => {
      end();
      window.clearTimeout(waiting);
    };
  }, [client, projectId]);
}

/** What is asked for anew after something was done; what went wrong is told at once, server or not. */
function after(client: QueryClient, queryKey: readonly string[]) {
  const anew = () => client.invalidateQueries({ queryKey });
  return { onSuccess: anew, onError: () => void anew() };
}

type ModelAct = "cancel" | "retry" | "restore" | "stand";

export function useModelAct(projectId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, act }: { id: string; act: ModelAct | "remove" }) => {
      const params = { params: { path: { model_id: id } } };
      switch (act) {
        case "remove":
          return answerOf(api.DELETE("/api/models/{model_id}", params));
        case "cancel":
          return answerOf(api.POST("/api/models/{model_id}/cancel", params));
        case "retry":
          return answerOf(api.POST("/api/models/{model_id}/retry", params));
        case "restore":
          return answerOf(api.POST("/api/models/{model_id}/restore", params));
        case "stand":
          return answerOf(api.POST("/api/models/{model_id}/stand", params));
      }
    },
    ...after(client, ["project", projectId]),
  });
}

/** Corrections of what a model's file says: its discipline and how it is aligned, for the whole project. */
export function useCorrections(projectId: string) {
  const client = useQueryClient();
  const told = after(client, ["project", projectId]);
  const at = (id: string) => ({ params: { path: { model_id: id } } });
  return {
    discipline: useMutation({
      mutationFn: ({ id, code }: { id: string; code: string | null }) =>
        answerOf(api.PUT("/api/models/{model_id}/discipline", { ...at(id), body: { code } })),
      ...told,
    }),
    align: useMutation({
      mutationFn: ({ id, wish }: { id: string; wish: Shapes["AlignmentRequest"] }) =>
        answerOf(api.PUT("/api/models/{model_id}/alignment", { ...at(id), body: wish })),
      ...told,
    }),
    alignByPoints: useMutation({
      mutationFn: ({ id, wish }: { id: string; wish: Shapes["PointsRequest"] }) =>
        answerOf(api.PUT("/api/models/{model_id}/alignment/points", { ...at(id), body: wish })),
      ...told,
    }),
  };
}

/** What is done with whole projects on the start page. */
export function useProjectActs() {
  const client = useQueryClient();
  const told = after(client, keys.projects);
  const at = (id: string) => ({ params: { path: { project_id: id } } });
  return {
    make: useMutation({
      mutationFn: (body: Shapes["NewProject"]) => answerOf(api.POST("/api/projects", { body })),
      ...told,
    }),
    rename: useMutation({
      mutationFn: ({ id, name }: { id: string; name: string }) =>
        answerOf(api.PUT("/api/projects/{project_id}/name", { ...at(id), body: { name } })),
      ...told,
    }),
    remove: useMutation({
      mutationFn: (id: string) => answerOf(api.DELETE("/api/projects/{project_id}", at(id))),
      ...told,
    }),
    restore: useMutation({
      mutationFn: (id: string) => answerOf(api.POST("/api/projects/{project_id}/restore", at(id))),
      ...told,
    }),
  };
}

/** How colours for what is picked stand out from the building and what it stands before. */
export function highlightsQuery(projectId: string, background: string, colours: readonly string[]) {
  return queryOptions({
    queryKey: ["projects", projectId, "highlights", background, ...colours],
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/highlights", {
          params: { path: { project_id: projectId }, query: { background, colours: [...colours] } },
        }),
      ),
    placeholderData: (before) => before,
  });
}
