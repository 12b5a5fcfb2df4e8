import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api } from "../api/client";
import { keys } from "../api/queries";
import { DELETION } from "../open/deletion";
import type { TopicsTask } from "../open/tasks/task";
import { doAct } from "../open/undoLine";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";

/** What a body of bytes needs beside the file itself. */
const sentAs = (file: File) => ({
  body: "",
  bodySerializer: () => file,
  headers: { "Content-Type": "application/octet-stream" },
});
const named = (file: File) => ({ "x-file-name": encodeURIComponent(file.name) });

/** What became of a file of topics when it was taken in last. */
export function useReport(task: TopicsTask) {
  return useQuery({
    queryKey: ["report", task.id, task.made],
    enabled: task.made > 0 && !task.wish.preview,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answerOf(api.GET("/api/tasks/{task_id}/report", { params: { path: { task_id: task.id } } })),
  });
}

/** What a file of topics would bring, as it was looked through last. */
export function usePreview(task: TopicsTask) {
  return useQuery({
    queryKey: ["preview", task.id, task.made],
    enabled: task.made > 0,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answerOf(api.GET("/api/tasks/{task_id}/preview", { params: { path: { task_id: task.id } } })),
  });
}

/** Sending files of topics, and files that belong to one. */
export function useTopicFiles() {
  const { projectId } = useOpen();
  const ofTasks = useDoing(keys.tasks(projectId));
  const ofTopics = useDoing(keys.topics(projectId));
  return useMemo(() => {
    return {
      /** Send a file of topics, to be told first what it would bring. */
      take: (file: File) =>
        ofTasks(() =>
          answerOf(
            api.POST("/api/projects/{project_id}/topics/files", {
              params: { path: { project_id: projectId }, query: { preview: true }, header: named(file) },
              ...sentAs(file),
            }),
          ),
        ),
      attach: (topicId: string, file: File) =>
        ofTopics(() =>
          answerOf(
            api.POST("/api/topics/{topic_id}/files", {
              params: { path: { topic_id: topicId }, header: named(file) },
              ...sentAs(file),
            }),
          ),
        ),
      remove: (id: string, name: string) =>
        doAct(
          {
            name: `removed ${name}`,
            undo: () => ofTopics(() => DELETION.topic_file.restore(id)),
            redo: () => ofTopics(() => DELETION.topic_file.remove(id)),
          },
          `Removed ${name}.`,
        ),
    };
  }, [ofTasks, ofTopics, projectId]);
}
