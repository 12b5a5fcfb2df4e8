import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { FormEvent } from "react";
import type { Shapes } from "../api/client";
import { useViewpoints } from "../api/queries";
import { spokenMoment } from "../open/dates";
import { useDraft, useTyped } from "../open/drafts";
import { spokenChange, type Topic, viewNameOf } from "../open/topics/listed";
import { useTopicActs } from "../open/topics/useTopics";
import { useOpen } from "../open/useStage";
import { useKeepView } from "../open/views/viewpoints";
import { DeskHeading } from "../parts/desk";
import { Only } from "../parts/Only";
import { PictureButton } from "../parts/PictureButton";
import { Tick } from "../parts/Tick";
import { Typing } from "../parts/Typing";
import { tone } from "../style/theme";

/** What was written of a topic and what was changed, oldest first, and writing more. */
export function TopicNotes({ topic, notes }: { topic: Topic; notes: readonly Shapes["TopicNote"][] }) {
  const { write } = useTopicActs();
  const { typed: text, type: setText, kept } = useTyped(`comment on ${topic.id}`);
  const keep = useKeepView();
  const [withView, setWithView] = useDraft(`comment with a view on ${topic.id}`, false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    // What was typed stays until it is kept.
    if (!text.trim()) return;
    const view = withView ? await keep(viewNameOf(topic)) : null;
    if (withView && !view) return;
    if (!(await write(topic.id, text, view?.id ?? null))) return;
    kept(text);
    setWithView(false);
  };
  return (
    <>
      <DeskHeading>What was said</DeskHeading>
      {notes.map((note) => (
        <Box
          key={note.id}
          data-testid="topic-note"
          sx={{ fontSize: 13, py: 0.5, borderTop: `1px solid ${tone.line}` }}
        >
          <Box sx={{ color: tone.soft, fontSize: 12 }}>
            {note.author}, {spokenMoment(note.at)}
          </Box>
          {note.view && <ViewOfNote id={note.view} />}
          {note.text && <Box sx={{ whiteSpace: "pre-wrap", overflowWrap: "anywhere" }}>{note.text}</Box>}
          {note.changed.map((change) => (
            <Box key={change.field} sx={{ color: tone.soft, overflowWrap: "anywhere" }}>
              {spokenChange(change)}
            </Box>
          ))}
        </Box>
      ))}
      <Only to="write topics and comments">
        <Box component="form" onSubmit={submit} sx={{ mt: 0.75 }}>
          <Typing about="A comment" placeholder="Write a comment" rows={2} value={text} type={setText} />
          <Box>
            <Tick label="with the current view" on={withView} set={setWithView} />
          </Box>
          <Button type="submit" variant="outlined" disabled={!text.trim()} sx={{ color: tone.ink }}>
            Write
          </Button>
        </Box>
      </Only>
    </>
  );
}

/** The view that a comment was written with: a click goes there. */
function ViewOfNote({ id }: { id: string }) {
  const { projectId } = useOpen();
  const { data = [] } = useViewpoints(projectId);
  const view = data.find((each) => each.id === id);
  if (!view) return null;
  return (
    <Box sx={{ width: 120, my: 0.5 }}>
      <PictureButton view={view} testId="note-view" />
    </Box>
  );
}
