import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type FormEvent, useState } from "react";
import { blobAddress, type Shapes } from "../api/client";
import { useViewpoints } from "../api/queries";
import { useOpen } from "../open/useStage";
import { DeskHeading } from "../parts/desk";
import { Tick } from "../parts/Tick";
import { useTyped } from "../parts/useTyped";
import { tone } from "../theme";
import { useKeepView, useShowViewpoint } from "../viewpoints/viewpoints";
import { spokenChange, type Topic, viewNameOf } from "./listed";
import { useTopicActs } from "./useTopics";

const WHEN = { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" } as const;

/** What was written of a topic and what was changed, oldest first, and writing more. */
export function TopicNotes({ topic, notes }: { topic: Topic; notes: readonly Shapes["TopicNote"][] }) {
  const { write } = useTopicActs();
  const { typed: text, type: setText, kept } = useTyped();
  const keep = useKeepView();
  const [withView, setWithView] = useState(false);
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
            {note.author}, {new Date(note.at).toLocaleString("en-GB", WHEN)}
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
      <Box component="form" onSubmit={submit} sx={{ mt: 0.75 }}>
        <Box
          component="textarea"
          rows={2}
          aria-label="A comment"
          placeholder="Write a comment"
          value={text}
          onChange={(event) => setText(event.target.value)}
          sx={{
            width: "100%",
            fontFamily: "inherit",
            fontSize: 13,
            color: tone.ink,
            border: `1px solid ${tone.line}`,
            bgcolor: "#fff",
            p: 0.5,
            resize: "vertical",
          }}
        />
        <Box>
          <Tick label="with the present view" on={withView} set={setWithView} />
        </Box>
        <Button type="submit" variant="outlined" disabled={!text.trim()} sx={{ color: tone.ink }}>
          Write
        </Button>
      </Box>
    </>
  );
}

/** The view that a comment was written with: a click goes there. */
function ViewOfNote({ id }: { id: string }) {
  const { projectId } = useOpen();
  const { data = [] } = useViewpoints(projectId);
  const show = useShowViewpoint();
  const view = data.find((each) => each.id === id);
  if (!view) return null;
  return (
    <Box
      component="button"
      type="button"
      aria-label={`Go to ${view.name}`}
      data-testid="note-view"
      onClick={() => void show(view)}
      sx={{
        p: 0,
        border: `1px solid ${tone.line}`,
        bgcolor: tone.film,
        cursor: "pointer",
        display: "block",
        my: 0.5,
      }}
    >
      <Box component="img" src={blobAddress(view.picture)} alt="" sx={{ width: 120, display: "block" }} />
    </Box>
  );
}
