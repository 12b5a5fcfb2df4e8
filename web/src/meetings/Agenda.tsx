import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import type { FormEvent } from "react";
import { useTyped } from "../open/drafts";
import { adding, dropping } from "../open/entries";
import { useSession } from "../open/session";
import { byReference } from "../open/topics/byReference";
import type { Topic } from "../open/topics/listed";
import { useShowPlace } from "../open/topics/useOpenTopic";
import { useStatuses } from "../open/topics/useTopics";
import { DeskHeading, DeskNote } from "../parts/desk";
import { counted } from "../parts/words";
import { face, tone } from "../style/theme";
import { type Meeting, type Point, useMeetingActs, useMeetingShown } from "./useMeetings";

/** What is dealt with, in its order, and why; a click goes to the place, arrows change the order. */
export function Agenda(props: { meeting: Meeting; points: readonly Point[]; topics: readonly Topic[] }) {
  const { meeting, points, topics } = props;
  const { at, put } = useMeetingShown();
  const { change } = useMeetingActs();
  const show = useShowPlace();
  const { typed, type, kept } = useTyped(`agenda of ${meeting.id}`);
  const order = meeting.topics;
  const ends = useStatuses().flatMap(({ name, end }) => (end ? [name] : []));
  const leftOut = topics.filter(({ id, said }) => !order.includes(id) && !ends.includes(said.status ?? ""));
  const move = (id: string, step: number) => {
    const from = order.indexOf(id);
    const to = from + step;
    if (to < 0 || to >= order.length) return;
    const before = order.filter((each) => each !== id)[to] ?? null;
    void change(meeting.id, { place: { topic: id, before } });
  };
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const found = byReference(topics, typed);
    if (!found) {
      useSession
        .getState()
        .say(`There is no topic ${typed.trim() || "without a reference"}. Type its reference.`);
      return;
    }
    if (await change(meeting.id, { topics: adding(found.id) })) kept(typed);
  };
  return (
    <>
      <DeskHeading>Agenda</DeskHeading>
      {order.length === 0 && <DeskNote>The agenda is empty. Add a topic by its reference.</DeskNote>}
      {order.map((id, k) => {
        const topic = topics.find((each) => each.id === id);
        const noted = points.filter((point) => point.topic_id === id).length;
        if (!topic) return null;
        return (
          <Box
            key={id}
            data-testid="agenda-topic"
            sx={{
              display: "flex",
              borderTop: `1px solid ${tone.line}`,
              borderLeft: `3px solid ${id === at ? tone.here : "transparent"}`,
              pl: 0.75,
            }}
          >
            <Box
              component="button"
              type="button"
              aria-current={id === at}
              onClick={() => {
                put({ at: id });
                show(topic);
              }}
              sx={{
                flex: 1,
                textAlign: "left",
                font: "inherit",
                fontSize: 13,
                color: tone.ink,
                bgcolor: "transparent",
                border: 0,
                p: 0,
                py: 0.5,
                cursor: "pointer",
                overflowWrap: "anywhere",
              }}
            >
              <Box component="span" sx={{ fontFamily: face.figure, fontSize: 12 }}>
                {topic.reference}
              </Box>{" "}
              {topic.said.title}
              <Box sx={{ color: tone.soft, fontSize: 12 }}>
                {meeting.whys[k]}
                {noted > 0 && `, ${noted} noted`}
              </Box>
            </Box>
            <Button
              variant="text"
              aria-label={`Take ${topic.reference} off the agenda`}
              title="Take it off the agenda"
              onClick={() => void change(meeting.id, { topics: dropping(id) })}
            >
              ×
            </Button>
            <Button variant="text" aria-label={`${topic.reference} earlier`} onClick={() => move(id, -1)}>
              ↑
            </Button>
            <Button variant="text" aria-label={`${topic.reference} later`} onClick={() => move(id, 1)}>
              ↓
            </Button>
          </Box>
        );
      })}
      {leftOut.length > 0 && !meeting.ended_at && (
        <Box data-testid="left-out" sx={{ borderTop: `1px solid ${tone.line}`, pt: 0.5 }}>
          <DeskNote>
            {counted(leftOut.length, "other open topic")} {leftOut.length === 1 ? "is" : "are"} not on the
            agenda: not left open by the last meeting, not overdue and not new.
          </DeskNote>
          <Button
            variant="text"
            sx={{ ml: 0 }}
            onClick={() => void change(meeting.id, { topics: adding(...leftOut.map(({ id }) => id)) })}
          >
            {leftOut.length === 1 ? "Add it" : `Add all ${leftOut.length}`}
          </Button>
        </Box>
      )}
      <Box component="form" onSubmit={add} sx={{ mt: 0.75 }}>
        <OutlinedInput
          fullWidth
          size="small"
          value={typed}
          placeholder="Add a topic by its reference"
          onChange={(event) => type(event.target.value)}
          inputProps={{ "aria-label": "Reference of a topic to deal with" }}
        />
      </Box>
    </>
  );
}
