import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { answerOf, api } from "../api/client";
import { keys } from "../api/queries";
import { adding, entries } from "../open/entries";
import { useTogether } from "../open/together/togetherState";
import { useKnownPeople } from "../open/topics/useKnownPeople";
import { useTopics } from "../open/topics/useTopics";
import { useOpen } from "../open/useStage";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { History } from "../parts/History";
import { KeptText } from "../parts/KeptText";
import { NameField } from "../parts/NameField";
import { Greyed, Only } from "../parts/Only";
import { Agenda } from "./Agenda";
import { AtTopic } from "./AtTopic";
import { Times } from "./Times";
import { useMeeting, useMeetingActs, useMeetingShown } from "./useMeetings";

/** A meeting as it is held: who is there, what is dealt with, and what is noted of it. */
export function MeetingOpen({ id }: { id: string }) {
  const { data, error } = useMeeting(id);
  const { data: topics = [] } = useTopics();
  const { at, put } = useMeetingShown();
  const { change, remove } = useMeetingActs();
  const people = useTogether((s) => s.people).map(({ name }) => name);
  const known = useKnownPeople();
  const { projectId } = useOpen();
  const back = () => put({ opened: null, at: null });
  if (!data)
    return (
      <Box>
        <Button variant="text" sx={{ ml: 0 }} onClick={back}>
          All meetings
        </Button>
        <DeskNote>{error?.message ?? "Loading…"}</DeskNote>
      </Box>
    );
  const { meeting, points } = data;
  const here = [...new Set(people)].filter((name) => !meeting.present.includes(name));
  const others = known.filter((name) => !meeting.present.includes(name) && !here.includes(name));
  const topic = topics.find((each) => each.id === at);
  const minutes = (form: string, paper: string) =>
    `/api/meetings/${id}/minutes?${new URLSearchParams({ form, paper })}`;
  return (
    <Box data-testid="meeting-open">
      <DeskActs>
        <Button variant="text" onClick={back}>
          All meetings
        </Button>
        <Only to="hold meetings">
          <Button variant="text" onClick={() => void change(id, { ended: !meeting.ended_at })}>
            {meeting.ended_at ? "Reopen" : "End meeting"}
          </Button>
          <Button
            variant="text"
            onClick={async () => {
              if (await remove(meeting)) back();
            }}
          >
            Delete
          </Button>
        </Only>
      </DeskActs>
      <Greyed to="hold meetings">
        <NameField
          label="Meeting"
          field={`title of meeting ${id}`}
          about="Title of the meeting that is open"
          value={meeting.title}
          keep={(title) => change(id, { title })}
        />
        <KeptText
          label="Present, separated by commas"
          field={`present in meeting ${id}`}
          of="the meeting"
          rows={2}
          value={meeting.present.join(", ")}
          keep={(typed, over) => change(id, { present: entries(over.split(","), typed.split(",")) })}
        />
        {here.length > 0 && (
          <Button variant="text" sx={{ ml: 0 }} onClick={() => void change(id, { present: adding(...here) })}>
            Add people here now: {here.join(", ")}
          </Button>
        )}
        <AddSomebody
          label="Add somebody who is present"
          of={others}
          add={(name) => change(id, { present: adding(name) })}
        />
      </Greyed>
      {topic && (
        <AtTopic meeting={meeting} topic={topic} points={points.filter((p) => p.topic_id === topic.id)} />
      )}
      <Agenda meeting={meeting} points={points} topics={topics} />
      <DeskHeading>Minutes</DeskHeading>
      <Greyed to="hold meetings">
        <KeptText
          label="Absent, separated by commas"
          field={`absent from meeting ${id}`}
          of="the meeting"
          value={meeting.absent.join(", ")}
          keep={(typed, over) => change(id, { absent: entries(over.split(","), typed.split(",")) })}
        />
        <AddSomebody
          label="Add somebody who is absent"
          of={[...here, ...others].filter((name) => !meeting.absent.includes(name))}
          add={(name) => change(id, { absent: adding(name) })}
        />
        <Times meeting={meeting} />
      </Greyed>
      {points.length === 0 && <DeskNote>No notes yet. The minutes list what was noted.</DeskNote>}
      <DeskActs>
        <Button variant="text" component="a" href={minutes("pdf", "A4")} target="_blank" rel="noreferrer">
          PDF, A4
        </Button>
        <Button variant="text" component="a" href={minutes("pdf", "Letter")} target="_blank" rel="noreferrer">
          PDF, Letter
        </Button>
        <Button variant="text" component="a" href={minutes("html", "A4")} target="_blank" rel="noreferrer">
          Page
        </Button>
      </DeskActs>
      <History
        queryKey={[...keys.meetings(projectId), id]}
        ask={() =>
          answerOf(api.GET("/api/meetings/{meeting_id}/history", { params: { path: { meeting_id: id } } }))
        }
        known={new Map(topics.map((each) => [each.id, each.reference]))}
      />
    </Box>
  );
}

/** Adds somebody who is known in the project; not there where nobody is left to add. */
function AddSomebody(props: { label: string; of: readonly string[]; add: (name: string) => unknown }) {
  const { label, of, add } = props;
  if (!of.length) return null;
  return (
    <NativeSelect
      value=""
      inputProps={{ "aria-label": label }}
      sx={{ fontSize: 13, mb: 0.5 }}
      onChange={(event) => void add(event.target.value)}
    >
      <option value="">Add somebody…</option>
      {of.map((name) => (
        <option key={name}>{name}</option>
      ))}
    </NativeSelect>
  );
}
