import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { FormEvent } from "react";
import type { Shapes } from "../api/client";
import { DeskHeading } from "../parts/desk";
import { useTyped } from "../parts/useTyped";
import { tone } from "../theme";
import { spokenChange, type Topic } from "./listed";
import { useTopicActs } from "./useTopics";

const WHEN = { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" } as const;

/** What was written of a topic and what was changed, oldest first, and writing more. */
export function TopicNotes({ topic, notes }: { topic: Topic; notes: readonly Shapes["TopicNote"][] }) {
  const { write } = useTopicActs();
  const { typed: text, type: setText, kept } = useTyped();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    // What was typed stays until it is kept.
    if (text.trim() && (await write(topic.id, text, null))) kept(text);
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
        <Button type="submit" variant="outlined" disabled={!text.trim()} sx={{ color: tone.ink }}>
          Write
        </Button>
      </Box>
    </>
  );
}
