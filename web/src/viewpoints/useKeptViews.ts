import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes, type View, type Viewpoint } from "../api/client";
import { keys } from "../api/queries";
import { useSession } from "../open/session";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";

/** What is done to viewpoints that are kept: kept over with undo, framed, made for the building, and gone through. */
export function useKeptViews() {
  const { projectId } = useOpen();
  const client = useQueryClient();
  const doing = useDoing(keys.viewpoints(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { viewpoint_id: id } } });
    const of = { params: { path: { project_id: projectId } } };
    const { say } = useSession.getState();
    return {
      /** What keeping a view over a viewpoint would change. */
      changes: (id: string, view: View) =>
        answerOf(api.POST("/api/viewpoints/{viewpoint_id}/changes", { ...at(id), body: view })),
      keepOver: ({ id, name }: Viewpoint, body: Shapes["ViewToKeep"]) =>
        doing(async () => {
          const now = await answerOf(api.PUT("/api/viewpoints/{viewpoint_id}/view", { ...at(id), body }));
          // What is asked of it next is asked of what was kept, however long the list takes to come.
          client.setQueryData<Viewpoint[]>(keys.viewpoints(projectId), (all) =>
            all?.map((each) => (each.id === id ? { ...each, ...now, of: each.of ?? [] } : each)),
          );
          say(
            `${name} is what you see now.`,
            () => void doing(() => answerOf(api.POST("/api/viewpoints/{viewpoint_id}/take-back", at(id)))),
          );
        }),
      reframe: (id: string, body: Shapes["Reframed"]) =>
        doing(() => answerOf(api.PUT("/api/viewpoints/{viewpoint_id}/picture", { ...at(id), body }))),
      makeStanding: () =>
        doing(async () => {
          await answerOf(api.POST("/api/projects/{project_id}/viewpoints/standing", of));
          say("The standing views are being made. Pictures follow as they are drawn.");
        }),
      look: () => doing(() => answerOf(api.POST("/api/projects/{project_id}/viewpoints/looked", of))),
    };
  }, [client, doing, projectId]);
}
