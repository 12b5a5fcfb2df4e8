import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes } from "../../api/client";
import { keys } from "../../api/queries";
import { DELETION } from "../deletion";
import { doAct } from "../undoLine";
import { useDoing } from "../useDoing";
import { useOpen } from "../useStage";

/** The project's checks and sheets. */
export function useTasks() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: keys.tasks(projectId),
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/tasks", { params: { path: { project_id: projectId } } })),
  });
}

/** What a check came to when it was run last; asked for anew once it was run again. */
export function useFindings(id: string | null, made: number) {
  return useQuery({
    queryKey: ["findings", id, made],
    enabled: id !== null && made > 0,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answerOf(api.GET("/api/tasks/{task_id}/findings", { params: { path: { task_id: id ?? "" } } })),
  });
}

/** Asking for checks and sheets, stopping, running again, deleting. */
export function useTaskActs() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.tasks(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { task_id: id } } });
    return {
      /** Ask for one; its id once it is asked for. */
      ask: async (name: string, wish: Shapes["NewTask"]["wish"]): Promise<string | null> => {
        let id: string | null = null;
        await doing(async () => {
          const made = await answerOf(
            api.POST("/api/projects/{project_id}/tasks", {
              params: { path: { project_id: projectId } },
              body: { name, wish },
            }),
          );
          id = made.id;
        });
        return id;
      },
      again: (id: string, wish: Shapes["TaskAgain"]["wish"] = null) =>
        doing(() => answerOf(api.POST("/api/tasks/{task_id}/again", { ...at(id), body: { wish } }))),
      stop: (id: string) => doing(() => answerOf(api.POST("/api/tasks/{task_id}/stop", at(id)))),
      rename: (id: string, name: string) =>
        doing(() => answerOf(api.PUT("/api/tasks/{task_id}/name", { ...at(id), body: { name } }))),
      remove: (id: string, name: string) =>
        doAct(
          {
            name: `deleted "${name}"`,
            undo: () => doing(() => DELETION.task.restore(id)),
            redo: () => doing(() => DELETION.task.remove(id)),
          },
          `Deleted "${name}".`,
        ),
    };
  }, [doing, projectId]);
}
