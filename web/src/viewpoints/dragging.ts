import type { DragEvent } from "react";
import type { Viewpoint } from "../api/client";
import { useFolderActs } from "../open/views/useFolders";

const KIND = "application/x-stairpath-viewpoints";

/** Begin to drag viewpoints. */
export function drag(event: DragEvent, views: readonly string[]): void {
  event.dataTransfer.setData(KIND, JSON.stringify(views));
  event.dataTransfer.effectAllowed = "move";
}

const mark = (event: DragEvent<HTMLElement>, over: boolean) => {
  event.currentTarget.dataset.over = over ? "yes" : "no";
};

/** What lets viewpoints be dropped: before another one in its folder, or last in a folder, or out of any. */
export function useDrops() {
  const { move } = useFolderActs();
  return (at: Viewpoint | { folder: string | null }) => ({
    onDragOver: (event: DragEvent<HTMLElement>) => {
      if (!event.dataTransfer.types.includes(KIND)) return;
      event.preventDefault();
      event.stopPropagation();
      mark(event, true);
    },
    onDragLeave: (event: DragEvent<HTMLElement>) => mark(event, false),
    onDrop: (event: DragEvent<HTMLElement>) => {
      const data = event.dataTransfer.getData(KIND);
      if (!data) return;
      event.preventDefault();
      event.stopPropagation();
      mark(event, false);
      const views: string[] = JSON.parse(data);
      void move(views, at.folder, "id" in at && at.folder ? at.id : null);
    },
  });
}
