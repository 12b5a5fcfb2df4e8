import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes } from "../api/client";
import { keys } from "../api/queries";
import { perProject } from "../open/perProject";
import { useSession } from "../open/session";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";

export type Meeting = Shapes["Meeting"];
export type Point = Shapes["MeetingPoint"];

interface MeetingShown {
  /** The meeting that is open, and the topic that it is at. */
  opened: string | null;
  at: string | null;
  put(part: Partial<Omit<MeetingShown, "put">>): void;
}

export const useMeetingShown = perProject<MeetingShown>(
  (set) => ({
    opened: null,
    at: null,
    put: (part) => set(part),
  }),
  { name: "meeting", part: ({ opened, at }) => ({ opened, at }) },
);

/** The project's meetings, the last one first. */
export function useMeetings() {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: keys.meetings(projectId),
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/meetings", { params: { path: { project_id: projectId } } }),
      ),
  });
}

/** A meeting with what was noted in it. */
export function useMeeting(id: string) {
  const { projectId } = useOpen();
  return useQuery({
    queryKey: [...keys.meetings(projectId), id],
    queryFn: () => answerOf(api.GET("/api/meetings/{meeting_id}", { params: { path: { meeting_id: id } } })),
    retry: false,
  });
}

/** Beginning a meeting, changing it, and noting against its topics. */
export function useMeetingActs() {
  const { projectId } = useOpen();
  const doing = useDoing(keys.meetings(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { meeting_id: id } } });
    const point = (id: string) => ({ params: { path: { point_id: id } } });
    const { say } = useSession.getState();
    return {
      begin: async (title: string, chosen: readonly string[] = []) => {
        let made: Meeting | null = null;
        await doing(async () => {
          made = await answerOf(
            api.POST("/api/projects/{project_id}/meetings", {
              params: { path: { project_id: projectId } },
              body: { title, chosen: [...chosen] },
            }),
          );
        });
        return made as Meeting | null;
      },
      change: (id: string, body: Shapes["MeetingRequest"]) =>
        doing(() => answerOf(api.PATCH("/api/meetings/{meeting_id}", { ...at(id), body }))),
      note: (id: string, body: Shapes["NewPoint"]) =>
        doing(() => answerOf(api.POST("/api/meetings/{meeting_id}/points", { ...at(id), body }))),
      correct: (id: string, body: Shapes["PointRequest"]) =>
        doing(() => answerOf(api.PATCH("/api/meeting-points/{point_id}", { ...point(id), body }))),
      takeAway: ({ id }: Point) =>
        doing(async () => {
          await answerOf(api.DELETE("/api/meeting-points/{point_id}", point(id)));
          say(
            "Note removed.",
            () => void doing(() => answerOf(api.POST("/api/meeting-points/{point_id}/restore", point(id)))),
          );
        }),
      remove: ({ id, title }: Meeting) =>
        doing(async () => {
          await answerOf(api.DELETE("/api/meetings/{meeting_id}", at(id)));
          say(
            `Deleted ${title}.`,
            () => void doing(() => answerOf(api.POST("/api/meetings/{meeting_id}/restore", at(id)))),
          );
        }),
    };
  }, [doing, projectId]);
}
