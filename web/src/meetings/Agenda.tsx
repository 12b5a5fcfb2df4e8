import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import type { FormEvent } from "react";
import { useTyped } from "../open/drafts";
import { useSession } from "../open/session";
import { byReference } from "../open/topics/byReference";
import type { Topic } from "../open/topics/listed";
import { useShowPlace } from "../open/topics/useOpenTopic";
import { DeskHeading, DeskNote } from "../parts/desk";
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
  const move = (id: string, step: number) => {
    const from = order.indexOf(id);
    const to = from + step;
    if (to < 0 || to >= order.length) return;
    const next = order.filter((each) => each !== id);
    next.splice(to, 0, id);
    void change(meeting.id, { topics: next });
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
    if (await change(meeting.id, { topics: [...order, found.id] })) kept(typed);
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
            <Button variant="text" aria-label={`${topic.reference} earlier`} onClick={() => move(id, -1)}>
              ↑
            </Button>
            <Button variant="text" aria-label={`${topic.reference} later`} onClick={() => move(id, 1)}>
              ↓
            </Button>
          </Box>
        );
      })}
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
