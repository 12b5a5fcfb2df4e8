import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes } from "../api/client";
import { keys } from "../api/queries";
import { DELETION } from "../open/deletion";
import { doAct } from "../open/undoLine";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";

export type Deleted = Shapes["Deleted"];

/** Others delete and restore too while the bin is open. */
const LOOK_MS = 5000;

/** What was deleted of the project within the last 30 days, the last one first. */
export function useBin() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: keys.bin(projectId),
    gcTime: 0,
    refetchInterval: LOOK_MS,
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/bin", { params: { path: { project_id: projectId } } })),
  });
}

/** Restoring what is in the bin; it can be undone. The lists that have it hear of it from the server. */
export function useBinActs() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.bin(projectId));
  return useMemo(
    () => ({
      restore: ({ kind, id, name }: Deleted) =>
        doAct({
          name: `restored ${name}`,
          undo: () => doing(() => DELETION[kind].remove(id)),
          redo: () => doing(() => DELETION[kind].restore(id)),
        }),
    }),
    [doing],
  );
}
