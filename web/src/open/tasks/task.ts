import type { Shapes } from "../../api/client";

/** Long work that a job does: a check for interference, a sheet, or a file of topics. */
export type Task = Shapes["Task"];
export type CheckTask = Task & { wish: Shapes["Check"] };
export type SheetTask = Task & { wish: Shapes["SheetRequest"] };
export type TopicsTask = Task & { wish: Shapes["TopicsIn"] };

export function isCheck(task: Task): task is CheckTask {
  return task.wish.kind === "check";
}

export function isSheet(task: Task): task is SheetTask {
  return task.wish.kind === "sheet";
}

export function isTopicsIn(task: Task): task is TopicsTask {
  return task.wish.kind === "topics";
}

export function isBusy({ status }: Task): boolean {
  return status === "waiting" || status === "running";
}
