import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes } from "../../api/client";
import { keys } from "../../api/queries";
import { DELETION } from "../deletion";
import { doAct } from "../undoLine";
import { useDoing } from "../useDoing";
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

/** Keeping sets, changing them, and deleting them; each can be undone. */
export function useSetActs() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.sets(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { set_id: id } } });
    const drop = (id: string) => doing(() => DELETION.set.remove(id));
    const restore = (id: string) => doing(() => DELETION.set.restore(id));
    const put = (id: string, body: Shapes["SetRequest"]) =>
      doing(() => answerOf(api.PUT("/api/sets/{set_id}", { ...at(id), body })));
    return {
      keep: async (name: string, conditions: readonly Condition[], layout: Layout) => {
        let made: ComponentSet | null = null;
        const keep = () =>
          doing(async () => {
            made = await answerOf(
              api.POST("/api/projects/{project_id}/sets", {
                params: { path: { project_id: projectId } },
                body: wishOf(name, conditions, layout),
              }),
            );
          });
        await doAct({
          name: `kept the set ${name}`,
          undo: () => drop(made?.id ?? ""),
          redo: () => (made ? restore(made.id) : keep()),
        });
        return made as ComponentSet | null;
      },
      change: (set: ComponentSet, name: string, conditions: readonly Condition[], layout: Layout) =>
        doAct(
          {
            name: `changed the set ${set.name}`,
            undo: () => put(set.id, wishOf(set.name, set.conditions, set)),
            redo: () => put(set.id, wishOf(name, conditions, layout)),
          },
          `Changed the set ${name}.`,
        ),
      remove: (set: ComponentSet) =>
        doAct(
          { name: `deleted the set ${set.name}`, undo: () => restore(set.id), redo: () => drop(set.id) },
          `Deleted the set ${set.name}.`,
        ),
    };
  }, [doing, projectId]);
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
