import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { useTyped } from "../open/drafts";
import { pickedNow } from "../open/selection";
import { disciplinesOf } from "../open/topics/concerned";
import { useTopicsShown } from "../open/topics/topicsState";
import { useTopicActs } from "../open/topics/useTopics";
import { useOpen } from "../open/useStage";
import { useKeepView } from "../open/views/viewpoints";
import { DeskHeading } from "../parts/desk";

/** Makes a topic of what is seen: the present view, and the disciplines of what is picked. */
export function NewTopic() {
  const { federation } = useOpen();
  const keep = useKeepView();
  const { make } = useTopicActs();
  const put = useTopicsShown((s) => s.put);
  const { typed: title, type: setTitle, kept } = useTyped("a topic");
  const [busy, setBusy] = useState(false);
  const beginning = useTopicsShown((s) => s.beginning);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!beginning) return;
    field.current?.focus();
    put({ beginning: false });
  }, [beginning, put]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!title.trim()) return;
    setBusy(true);
    const disciplines = disciplinesOf(federation, pickedNow());
    const view = await keep(title.trim());
    const made = view && (await make({ title, views: [view.id], disciplines }));
    setBusy(false);
    if (!made) return;
    kept(title);
    put({ opened: made.id });
  };
  return (
    <form onSubmit={submit}>
      <DeskHeading>New topic for this view</DeskHeading>
      <Box sx={{ display: "flex", gap: 0.75 }}>
        <OutlinedInput
          fullWidth
          size="small"
          inputRef={field}
          value={title}
          placeholder="What is the problem?"
          onChange={(event) => setTitle(event.target.value)}
          inputProps={{ "aria-label": "Title of the topic", maxLength: 200 }}
        />
        <Button type="submit" variant="contained" disabled={busy || !title.trim()}>
          Make
        </Button>
      </Box>
    </form>
  );
}
