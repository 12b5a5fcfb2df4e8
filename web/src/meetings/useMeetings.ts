import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Shapes } from "../api/client";
import { keys } from "../api/queries";
import { DELETION } from "../open/deletion";
import { perProject } from "../open/perProject";
import { doAct, noteAct } from "../open/undoLine";
import { useDoing } from "../open/useDoing";
import { useOpen } from "../open/useStage";
import { changeName, changesBack } from "./meetingBefore";

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
  });
}

/** Beginning a meeting, changing it, and noting against its topics; each can be undone. */
export function useMeetingActs() {
  const { projectId } = useOpen();
  const client = useQueryClient();
  const doing = useDoing(keys.meetings(projectId));
  return useMemo(() => {
    const at = (id: string) => ({ params: { path: { meeting_id: id } } });
    const point = (id: string) => ({ params: { path: { point_id: id } } });
    const toldNow = (id: string) =>
      client.getQueryData<Shapes["MeetingTold"]>([...keys.meetings(projectId), id]);
    const drop = (id: string) => doing(() => DELETION.meeting.remove(id));
    const restore = (id: string) => doing(() => DELETION.meeting.restore(id));
    const put = (id: string, ...wishes: Shapes["MeetingRequest"][]) =>
      doing(async () => {
        for (const body of wishes)
          await answerOf(api.PATCH("/api/meetings/{meeting_id}", { ...at(id), body }));
      });
    const dropNote = (id: string) => doing(() => DELETION.meeting_point.remove(id));
    const restoreNote = (id: string) => doing(() => DELETION.meeting_point.restore(id));
    const putNote = (id: string, body: Shapes["PointRequest"]) =>
      doing(() => answerOf(api.PATCH("/api/meeting-points/{point_id}", { ...point(id), body })));
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
        // TypeScript does not see that the work above sets it.
        const meeting = made as Meeting | null;
        if (meeting)
          noteAct({
            name: `began ${meeting.title}`,
            undo: () => drop(meeting.id),
            redo: () => restore(meeting.id),
          });
        return meeting;
      },
      change: (id: string, wish: Shapes["MeetingRequest"]) => {
        const before = toldNow(id)?.meeting;
        if (!before) return put(id, wish);
        return doAct({
          name: changeName(before, wish),
          undo: () => put(id, ...changesBack(before, wish)),
          redo: () => put(id, wish),
        });
      },
      note: (id: string, body: Shapes["NewPoint"]) => {
        let made = "";
        const note = () =>
          doing(async () => {
            made = (await answerOf(api.POST("/api/meetings/{meeting_id}/points", { ...at(id), body }))).id;
          });
        return doAct({
          name: "noted something",
          undo: () => dropNote(made),
          redo: () => (made ? restoreNote(made) : note()),
        });
      },
      correct: ({ id, text, decision, who, until }: Point, body: Shapes["PointRequest"]) => {
        const was = { text, decision, who, until };
        const fields = Object.keys(body);
        const back = Object.fromEntries(Object.entries(was).filter(([field]) => fields.includes(field)));
        return doAct({
          name: "corrected a note",
          undo: () => putNote(id, back),
          redo: () => putNote(id, body),
        });
      },
      takeAway: ({ id }: Point) =>
        doAct(
          { name: "removed a note", undo: () => restoreNote(id), redo: () => dropNote(id) },
          "Note removed.",
        ),
      remove: ({ id, title }: Meeting) =>
        doAct(
          { name: `deleted ${title}`, undo: () => restore(id), redo: () => drop(id) },
          `Deleted ${title}.`,
        ),
    };
  }, [client, doing, projectId]);
}
