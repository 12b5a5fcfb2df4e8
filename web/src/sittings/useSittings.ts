import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type Shapes, taken } from "../api/client";
import { keys } from "../api/queries";
import { perProject } from "../open/perProject";
import { useSession } from "../open/session";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";

export type Sitting = Shapes["Sitting"];
export type Point = Shapes["SittingPoint"];

interface SittingShown {
  /** The meeting that is open, and the topic that it is at. */
  opened: string | null;
  at: string | null;
  put(part: Partial<Omit<SittingShown, "put">>): void;
}

export const useSittingShown = perProject<SittingShown>((set) => ({
  opened: null,
  at: null,
  put: (part) => set(part),
}));

/** The project's meetings, the last one first. */
export function useSittings() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: keys.sittings(projectId),
    queryFn: () =>
      taken(api.GET("/api/projects/{project_id}/sittings", { params: { path: { project_id: projectId } } })),
  });
}

/** A meeting with what was noted in it. */
export function useSitting(id: string) {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: [...keys.sittings(projectId), id],
    queryFn: () => taken(api.GET("/api/sittings/{sitting_id}", { params: { path: { sitting_id: id } } })),
    retry: false,
  });
}

/** Beginning a meeting, changing it, and noting against its topics. */
export function useSittingActs() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.sittings(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { sitting_id: id } } });
    const point = (id: string) => ({ params: { path: { point_id: id } } });
    const { say } = useSession.getState();
    return {
      begin: async (title: string, chosen: readonly string[] = []) => {
        let made: Sitting | null = null;
        await doing(async () => {
          made = await taken(
            api.POST("/api/projects/{project_id}/sittings", {
              params: { path: { project_id: projectId } },
              body: { title, chosen: [...chosen] },
            }),
          );
        });
        return made as Sitting | null;
      },
      change: (id: string, body: Shapes["SittingWish"]) =>
        doing(() => taken(api.PATCH("/api/sittings/{sitting_id}", { ...at(id), body }))),
      note: (id: string, body: Shapes["NewPoint"]) =>
        doing(() => taken(api.POST("/api/sittings/{sitting_id}/points", { ...at(id), body }))),
      takeAway: ({ id }: Point) =>
        doing(async () => {
          await taken(api.DELETE("/api/sitting-points/{point_id}", point(id)));
          say(
            "Took the note away.",
            () => void doing(() => taken(api.POST("/api/sitting-points/{point_id}/restore", point(id)))),
          );
        }),
      remove: ({ id, title }: Sitting) =>
        doing(async () => {
          await taken(api.DELETE("/api/sittings/{sitting_id}", at(id)));
          say(
            `Deleted ${title}.`,
            () => void doing(() => taken(api.POST("/api/sittings/{sitting_id}/restore", at(id)))),
          );
        }),
    };
  }, [doing, projectId]);
}
