import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api } from "../../api/client";
import { keys } from "../../api/queries";
import { useSession } from "../session";
import { useDoing } from "../useDoing";
import { useOpen } from "../useStage";
import type { Folder } from "./shelf";

/** The project's folders of viewpoints, in their order. */
export function useFolders() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: [...keys.viewpoints(projectId), "folders"],
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/folders", { params: { path: { project_id: projectId } } }),
      ),
  });
}

/** Making, naming, ordering and deleting folders, and moving viewpoints into them. */
export function useFolderActs() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.viewpoints(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { folder_id: id } } });
    const of = { params: { path: { project_id: projectId } } };
    return {
      make: (name: string, within: string | null = null) =>
        doing(() =>
          answerOf(api.POST("/api/projects/{project_id}/folders", { ...of, body: { name, within } })),
        ),
      putInto: (id: string, within: string | null) =>
        doing(() => answerOf(api.PUT("/api/folders/{folder_id}/within", { ...at(id), body: { within } }))),
      rename: (id: string, name: string) =>
        doing(() => answerOf(api.PUT("/api/folders/{folder_id}/name", { ...at(id), body: { name } }))),
      putBefore: (id: string, before: string | null) =>
        doing(() => answerOf(api.PUT("/api/folders/{folder_id}/place", { ...at(id), body: { before } }))),
      remove: ({ id, name }: Folder) =>
        doing(async () => {
          await answerOf(api.DELETE("/api/folders/{folder_id}", at(id)));
          useSession
            .getState()
            .say(
              `Deleted the folder ${name}; its viewpoints are listed without a folder.`,
              () => void doing(() => answerOf(api.POST("/api/folders/{folder_id}/restore", at(id)))),
            );
        }),
      move: (views: readonly string[], folder: string | null, before: string | null = null) =>
        doing(() =>
          answerOf(
            api.POST("/api/projects/{project_id}/viewpoints/move", {
              ...of,
              body: { views: [...views], folder, before },
            }),
          ),
        ),
    };
  }, [doing, projectId]);
}
