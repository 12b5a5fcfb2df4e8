import { useQuery } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";
import { keys } from "../api/queries";
import { bytesSaid, MB } from "./bytes";

export type Room = Shapes["LimitsShown"];

/** What a project may hold, and what it holds. */
export function roomOf(projectId: string): Promise<Room> {
  return answerOf(
    api.GET("/api/projects/{project_id}/limits", { params: { path: { project_id: projectId } } }),
  );
}

/** The same, asked anew when a model comes or goes. */
export function useRoom(projectId: string) {
  return useQuery({ queryKey: [...keys.models(projectId), "room"], queryFn: () => roomOf(projectId) });
}

/** Why a file does not fit beside what the project holds and what is on its way, in a sentence; null where it does. */
export function whyNoRoom(name: string, size: number, onTheWay: number, room: Room): string | null {
  const { limits, storage_bytes } = room;
  if (size > limits.file_mb * MB)
    return `${name} has ${bytesSaid(size)}; a file may have ${bytesSaid(limits.file_mb * MB)}. Split it, or ask who runs the server for a higher limit.`;
  if (storage_bytes + onTheWay + size > limits.storage_mb * MB)
    return `${name} has ${bytesSaid(size)}, and this project holds ${bytesSaid(storage_bytes + onTheWay)} of at most ${bytesSaid(limits.storage_mb * MB)}. Remove what nobody needs, or ask who runs the server for a higher limit.`;
  return null;
}
