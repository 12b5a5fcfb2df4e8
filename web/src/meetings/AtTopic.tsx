import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { FormEvent } from "react";
import { useDraft, useTyped } from "../open/drafts";
import type { Topic } from "../open/topics/listed";
import { openOnDesk } from "../open/topics/topicsState";
import { useKnownPeople } from "../open/topics/useKnownPeople";
import { useShowPlace } from "../open/topics/useOpenTopic";
import { useTopics } from "../open/topics/useTopics";
import { useFolderActs } from "../open/views/useFolders";
import { useKeepView } from "../open/views/viewpoints";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { FIELD } from "../parts/field";
import { Only } from "../parts/Only";
import { Tick } from "../parts/Tick";
import { Typing } from "../parts/Typing";
import { tone } from "../style/theme";
import { Noted } from "./Noted";
import { type Meeting, type Point, useMeetingActs, useMeetingShown } from "./useMeetings";

/** The topic that the meeting is at: what was noted of it, and noting more. */
export function AtTopic(props: { meeting: Meeting; topic: Topic; points: readonly Point[] }) {
  const { meeting, topic, points } = props;
  const put = useMeetingShown((s) => s.put);
  const { data: all = [] } = useTopics();
  const show = useShowPlace();
  const go = (step: number) => {
    const next = all.find((each) => each.id === meeting.topics[meeting.topics.indexOf(topic.id) + step]);
    if (!next) return;
    put({ at: next.id });
    show(next);
  };
  return (
    <Box data-testid="at-topic" sx={{ border: `1px solid ${tone.ink}`, p: 1, mt: 1, bgcolor: "#fff" }}>
      <DeskHeading>{topic.reference}</DeskHeading>
      <Box sx={{ fontWeight: 600, fontSize: 14, overflowWrap: "anywhere" }}>{topic.said.title}</Box>
      {points.map((point) => (
        <Noted key={point.id} point={point} />
      ))}
      {meeting.ended_at ? (
        <DeskNote>The meeting has ended. Reopen it to note more.</DeskNote>
      ) : (
        <Only to="hold meetings">
          <NoteForm key={topic.id} meeting={meeting} topic={topic} />
        </Only>
      )}
      <DeskActs>
        <Button variant="text" onClick={() => go(-1)}>
          Previous
        </Button>
        <Button variant="text" onClick={() => go(1)}>
          Next
        </Button>
        <Button variant="text" onClick={() => openOnDesk(topic.id)}>
          Open the topic
        </Button>
      </DeskActs>
    </Box>
  );
}

/** A note before anything was said of it. */
const NOTHING_MORE = { decision: false, withView: false, who: "", until: "" };

function NoteForm({ meeting, topic }: { meeting: Meeting; topic: Topic }) {
  const { note } = useMeetingActs();
  const people = useKnownPeople();
  const keep = useKeepView();
  const { move } = useFolderActs();
  const { typed, type, kept } = useTyped(`note of ${meeting.id} on ${topic.id}`);
  const [more, setMore] = useDraft(`what goes with the note of ${meeting.id} on ${topic.id}`, NOTHING_MORE);
  const { decision, withView, who, until } = more;
  const put = (part: Partial<typeof more>) => setMore({ ...more, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!typed.trim()) return;
    let view: string | null = null;
    if (withView) {
      const made = await keep(`${topic.reference} ${topic.said.title}`.slice(0, 120));
      // Without the view it is noted once it can be kept.
      if (!made) return;
      view = made.id;
      if (meeting.folder) await move([made.id], meeting.folder);
    }
    const body = { topic: topic.id, text: typed, decision, who: who.trim(), until: until || null, view };
    if (!(await note(meeting.id, body))) return;
    kept(typed);
    setMore(NOTHING_MORE);
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 0.5, mt: 0.75 }}>
      <Typing
        about="A note of the meeting"
        placeholder="What was said or decided"
        rows={2}
        value={typed}
        type={type}
      />
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 0.5 }}>
        <Typing
          about="Assigned to"
          placeholder="who"
          value={who}
          type={(who) => put({ who: who.slice(0, 120) })}
          offered={people}
        />
        <Box
          component="input"
          type="date"
          aria-label="Due date"
          value={until}
          onChange={(event: React.ChangeEvent<HTMLInputElement>) => put({ until: event.target.value })}
          sx={FIELD}
        />
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        <Tick label="decided" on={decision} set={(decision) => put({ decision })} />
        <Tick label="with this view" on={withView} set={(withView) => put({ withView })} />
        <Button
          type="submit"
          variant="outlined"
          disabled={!typed.trim()}
          sx={{ color: tone.ink, ml: "auto" }}
        >
          Note
        </Button>
      </Box>
    </Box>
  );
}
