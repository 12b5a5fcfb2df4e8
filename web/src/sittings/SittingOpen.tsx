import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { KeptText } from "../parts/KeptText";
import { NameField } from "../parts/NameField";
import { useTogether } from "../together/togetherState";
import { useTopics } from "../topics/useTopics";
import { Agenda } from "./Agenda";
import { AtTopic } from "./AtTopic";
import { useSitting, useSittingActs, useSittingShown } from "./useSittings";

/** A meeting as it is held: who is there, what is dealt with, and what is noted of it. */
export function SittingOpen({ id }: { id: string }) {
  const { data, error } = useSitting(id);
  const { data: topics = [] } = useTopics();
  const { at, put } = useSittingShown();
  const { change, remove } = useSittingActs();
  const people = useTogether((s) => s.people).map(({ name }) => name);
  const back = () => put({ opened: null, at: null });
  if (!data)
    return (
      <Box>
        <Button variant="text" sx={{ ml: 0 }} onClick={back}>
          all meetings
        </Button>
        <DeskNote>{error?.message ?? "Fetching it …"}</DeskNote>
      </Box>
    );
  const { sitting, points } = data;
  const here = [...new Set(people)].filter((name) => !sitting.present.includes(name));
  const topic = topics.find((each) => each.id === at);
  const minutes = (form: string, paper: string) =>
    `/api/sittings/${id}/minutes?${new URLSearchParams({ form, paper })}`;
  return (
    <Box data-testid="sitting-open">
      <DeskActs>
        <Button variant="text" onClick={back}>
          all meetings
        </Button>
        <Button variant="text" onClick={() => void change(id, { ended: !sitting.ended_at })}>
          {sitting.ended_at ? "go on with it" : "end it"}
        </Button>
        <Button
          variant="text"
          onClick={async () => {
            if (await remove(sitting)) back();
          }}
        >
          delete
        </Button>
      </DeskActs>
      <NameField
        label="Meeting"
        about="Title of the meeting that is open"
        value={sitting.title}
        keep={(title) => void change(id, { title })}
      />
      <KeptText
        label="Present, with commas"
        of="the meeting"
        rows={2}
        value={sitting.present.join(", ")}
        keep={(typed) => void change(id, { present: typed.split(",") })}
      />
      {here.length > 0 && (
        <Button
          variant="text"
          sx={{ ml: 0 }}
          onClick={() => void change(id, { present: [...sitting.present, ...here] })}
        >
          add who is here: {here.join(", ")}
        </Button>
      )}
      {topic && (
        <AtTopic sitting={sitting} topic={topic} points={points.filter((p) => p.topic_id === topic.id)} />
      )}
      <Agenda sitting={sitting} points={points} topics={topics} />
      <DeskHeading>Minutes</DeskHeading>
      {points.length === 0 && <DeskNote>Nothing is noted yet; the minutes are of what was.</DeskNote>}
      <DeskActs>
        <Button variant="text" component="a" href={minutes("pdf", "A4")} target="_blank" rel="noreferrer">
          PDF, A4
        </Button>
        <Button variant="text" component="a" href={minutes("pdf", "Letter")} target="_blank" rel="noreferrer">
          PDF, Letter
        </Button>
        <Button variant="text" component="a" href={minutes("html", "A4")} target="_blank" rel="noreferrer">
          page
        </Button>
      </DeskActs>
    </Box>
  );
}
