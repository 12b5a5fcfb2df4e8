import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes } from "../../api/client";
import { keys } from "../../api/queries";
import { useSession, withErrorNotice } from "../session";
import { useOpen } from "../useStage";
import type { Condition } from "./conditions";

export type ComponentSet = Shapes["ComponentSet"];

/** How a set is listed: grouped by what, with which sums, and what stands beside each component. */
export interface Layout {
  steps: readonly string[];
  sums: readonly string[];
  columns: readonly string[];
}

const wishOf = (name: string, conditions: readonly Condition[], layout: Layout): Shapes["SetRequest"] => ({
  name,
  conditions: [...conditions],
  steps: [...layout.steps],
  sums: [...layout.sums],
  columns: [...layout.columns],
});

/** The project's sets. */
export function useSets() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: keys.sets(projectId),
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/sets", { params: { path: { project_id: projectId } } })),
  });
}

/** Keeping sets, changing them, and deleting them with undo. */
export function useSetActs() {
  const { projectId } = useOpen();
  const client = useQueryClient();
  return useMemo(() => {
    const again = () => client.invalidateQueries({ queryKey: keys.sets(projectId) });
    const { say } = useSession.getState();
    return {
      keep: async (name: string, conditions: readonly Condition[], layout: Layout) => {
        let made: ComponentSet | null = null;
        await withErrorNotice(async () => {
          made = await answerOf(
            api.POST("/api/projects/{project_id}/sets", {
              params: { path: { project_id: projectId } },
              body: wishOf(name, conditions, layout),
            }),
          );
          await again();
        });
        return made as ComponentSet | null;
      },
      change: (set: ComponentSet, name: string, conditions: readonly Condition[], layout: Layout) =>
        withErrorNotice(async () => {
          await answerOf(
            api.PUT("/api/sets/{set_id}", {
              params: { path: { set_id: set.id } },
              body: wishOf(name, conditions, layout),
            }),
          );
          await again();
          say(`Changed the set ${name}.`);
        }),
      remove: (set: ComponentSet) =>
        withErrorNotice(async () => {
          await answerOf(api.DELETE("/api/sets/{set_id}", { params: { path: { set_id: set.id } } }));
          await again();
          say(
            `Deleted the set ${set.name}.`,
            () =>
              void withErrorNotice(async () => {
                await answerOf(
                  api.POST("/api/sets/{set_id}/restore", { params: { path: { set_id: set.id } } }),
                );
                await again();
              }),
          );
        }),
    };
  }, [client, projectId]);
}

/** How many components a set has, and which. */
export function useMembers(conditions: readonly Condition[]) {
  const { projectId, federation } = useOpen();
  return useQuery({
    queryKey: ["where", projectId, federation.version, conditions],
    gcTime: 60_000,
    retry: false,
    queryFn: () =>
      answerOf(
        api.POST("/api/projects/{project_id}/where", {
          params: { path: { project_id: projectId } },
          body: { conditions: [...conditions] },
        }),
      ),
  });
}
