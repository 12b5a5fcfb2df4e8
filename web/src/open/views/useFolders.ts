import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Viewpoint } from "../../api/client";
import { keys } from "../../api/queries";
import { DELETION } from "../deletion";
import { doAct, isAsLeft } from "../undoLine";
import { useDoing } from "../useDoing";
import { useOpen } from "../useStage";
import { type Folder, placesOf } from "./shelf";

const foldersKey = (projectId: string) => [...keys.viewpoints(projectId), "folders"];

/** The project's folders of viewpoints, in their order. */
export function useFolders() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: foldersKey(projectId),
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/folders", { params: { path: { project_id: projectId } } }),
      ),
  });
}

/** Making, naming, ordering and deleting folders, and moving viewpoints into them; each can be undone. */
export function useFolderActs() {
  const { projectId } = useOpen();
  const client = useQueryClient();
  const doing = useDoing(keys.viewpoints(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { folder_id: id } } });
    const of = { params: { path: { project_id: projectId } } };
    const drop = (id: string) => doing(() => DELETION.folder.remove(id));
    const restore = (id: string) => doing(() => DELETION.folder.restore(id));
    const name = (id: string, name: string) =>
      doing(() => answerOf(api.PUT("/api/folders/{folder_id}/name", { ...at(id), body: { name } })));
    const within = (id: string, within: string | null) =>
      doing(() => answerOf(api.PUT("/api/folders/{folder_id}/within", { ...at(id), body: { within } })));
    const place = (id: string, before: string | null) =>
      doing(() => answerOf(api.PUT("/api/folders/{folder_id}/place", { ...at(id), body: { before } })));
    const move = (views: readonly string[], folder: string | null, before: string | null) =>
      doing(() =>
        answerOf(
          api.POST("/api/projects/{project_id}/viewpoints/move", {
            ...of,
            body: { views: [...views], folder, before },
          }),
        ),
      );
    const foldersNow = () => client.getQueryData<Folder[]>(foldersKey(projectId)) ?? [];
    const viewsNow = () => client.getQueryData<Viewpoint[]>(keys.viewpoints(projectId)) ?? [];
    return {
      make: (name: string, within: string | null = null) => {
        let made = "";
        const make = () =>
          doing(async () => {
            const body = { name, within };
            made = (await answerOf(api.POST("/api/projects/{project_id}/folders", { ...of, body }))).id;
          });
        return doAct({
          name: `made the folder ${name}`,
          undo: () => drop(made),
          redo: () => (made ? restore(made) : make()),
        });
      },
      putInto: (folder: Folder, into: string | null) =>
        doAct({
          name: `moved the folder ${folder.name}`,
          undo: () => within(folder.id, folder.within),
          redo: () => within(folder.id, into),
        }),
      rename: (folder: Folder, wanted: string) =>
        doAct({
          name: `renamed the folder ${folder.name}`,
          undo: async () => {
            const now = foldersNow().find(({ id }) => id === folder.id);
            return isAsLeft(`the folder ${wanted}`, wanted, now?.name) && name(folder.id, folder.name);
          },
          redo: () => name(folder.id, wanted),
        }),
      putBefore: (folder: Folder, before: string | null) => {
        const order = foldersNow().map(({ id }) => id);
        const next = order[order.indexOf(folder.id) + 1] ?? null;
        return doAct({
          name: `moved the folder ${folder.name}`,
          undo: () => place(folder.id, next),
          redo: () => place(folder.id, before),
        });
      },
      remove: (folder: Folder) =>
        doAct(
          {
            name: `deleted the folder ${folder.name}`,
            undo: () => restore(folder.id),
            redo: () => drop(folder.id),
          },
          `Deleted the folder ${folder.name}; its viewpoints are listed without a folder.`,
        ),
      move: (views: readonly string[], folder: string | null, before: string | null = null) => {
        const back = placesOf(viewsNow(), views);
        return doAct({
          name: views.length === 1 ? "moved a viewpoint" : `moved ${views.length} viewpoints`,
          undo: async () => {
            for (const { id, folder, before } of back) if (!(await move([id], folder, before))) return false;
            return true;
          },
          redo: () => move(views, folder, before),
        });
      },
    };
  }, [client, doing, projectId]);
}
