import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type Shapes, taken } from "../api/client";
import { keys } from "../api/queries";
import { useSession } from "../open/session";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";

/** The project's checks and sheets. */
export function useErrands() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: keys.errands(projectId),
    queryFn: () =>
      taken(api.GET("/api/projects/{project_id}/errands", { params: { path: { project_id: projectId } } })),
  });
}

/** What a check came to when it was run last; asked for anew once it was run again. */
export function useFindings(id: string | null, made: number) {
  return useQuery({
    queryKey: ["findings", id, made],
    enabled: id !== null && made > 0,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      taken(api.GET("/api/errands/{errand_id}/findings", { params: { path: { errand_id: id ?? "" } } })),
  });
}

/** Asking for checks and sheets, stopping, running again, deleting. */
export function useErrandActs() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.errands(projectId));
  return useMemo(() => {
    const { say } = useSession.getState();
    const at = (id: string) => ({ params: { path: { errand_id: id } } });
    return {
      /** Ask for one; its id once it is asked for. */
      ask: async (name: string, wish: Shapes["NewErrand"]["wish"]): Promise<string | null> => {
        let id: string | null = null;
        await doing(async () => {
          const made = await taken(
            api.POST("/api/projects/{project_id}/errands", {
              params: { path: { project_id: projectId } },
              body: { name, wish },
            }),
          );
          id = made.id;
        });
        return id;
      },
      again: (id: string, wish: Shapes["ErrandAgain"]["wish"] = null) =>
        doing(() => taken(api.POST("/api/errands/{errand_id}/again", { ...at(id), body: { wish } }))),
      stop: (id: string) => doing(() => taken(api.POST("/api/errands/{errand_id}/stop", at(id)))),
      rename: (id: string, name: string) =>
        doing(() => taken(api.PUT("/api/errands/{errand_id}/name", { ...at(id), body: { name } }))),
      remove: (id: string, name: string) =>
        doing(async () => {
          await taken(api.DELETE("/api/errands/{errand_id}", at(id)));
          say(
            `"${name}" was deleted.`,
            () => void doing(() => taken(api.POST("/api/errands/{errand_id}/restore", at(id)))),
          );
        }),
    };
  }, [doing, projectId]);
}
