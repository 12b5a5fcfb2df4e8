import { answerOf, api, type Shapes } from "../api/client";

/** How a thing is deleted, and how it is restored. */
interface Ways {
  restore: (id: string) => Promise<unknown>;
  remove: (id: string) => Promise<unknown>;
}

/** How things of each kind are deleted so that they can be restored. */
export const DELETION: Readonly<Record<Shapes["Deleted"]["kind"], Ways>> = {
  topic: {
    restore: (topic_id) =>
      answerOf(api.POST("/api/topics/{topic_id}/restore", { params: { path: { topic_id } } })),
    remove: (topic_id) => answerOf(api.DELETE("/api/topics/{topic_id}", { params: { path: { topic_id } } })),
  },
  topic_file: {
    restore: (file_id) =>
      answerOf(api.POST("/api/topic-files/{file_id}/restore", { params: { path: { file_id } } })),
    remove: (file_id) =>
      answerOf(api.DELETE("/api/topic-files/{file_id}", { params: { path: { file_id } } })),
  },
  viewpoint: {
    restore: (viewpoint_id) =>
      answerOf(api.POST("/api/viewpoints/{viewpoint_id}/restore", { params: { path: { viewpoint_id } } })),
    remove: (viewpoint_id) =>
      answerOf(api.DELETE("/api/viewpoints/{viewpoint_id}", { params: { path: { viewpoint_id } } })),
  },
  folder: {
    restore: (folder_id) =>
      answerOf(api.POST("/api/folders/{folder_id}/restore", { params: { path: { folder_id } } })),
    remove: (folder_id) =>
      answerOf(api.DELETE("/api/folders/{folder_id}", { params: { path: { folder_id } } })),
  },
  meeting: {
    restore: (meeting_id) =>
      answerOf(api.POST("/api/meetings/{meeting_id}/restore", { params: { path: { meeting_id } } })),
    remove: (meeting_id) =>
      answerOf(api.DELETE("/api/meetings/{meeting_id}", { params: { path: { meeting_id } } })),
  },
  meeting_point: {
    restore: (point_id) =>
      answerOf(api.POST("/api/meeting-points/{point_id}/restore", { params: { path: { point_id } } })),
    remove: (point_id) =>
      answerOf(api.DELETE("/api/meeting-points/{point_id}", { params: { path: { point_id } } })),
  },
  set: {
    restore: (set_id) => answerOf(api.POST("/api/sets/{set_id}/restore", { params: { path: { set_id } } })),
    remove: (set_id) => answerOf(api.DELETE("/api/sets/{set_id}", { params: { path: { set_id } } })),
  },
  route: {
    restore: (route_id) =>
      answerOf(api.POST("/api/routes/{route_id}/restore", { params: { path: { route_id } } })),
    remove: (route_id) => answerOf(api.DELETE("/api/routes/{route_id}", { params: { path: { route_id } } })),
  },
  task: {
    restore: (task_id) =>
      answerOf(api.POST("/api/tasks/{task_id}/restore", { params: { path: { task_id } } })),
    remove: (task_id) => answerOf(api.DELETE("/api/tasks/{task_id}", { params: { path: { task_id } } })),
  },
};
