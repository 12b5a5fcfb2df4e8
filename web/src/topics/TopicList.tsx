import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type FormEvent, useMemo, useState } from "react";
import { pickedNow } from "../open/selection";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Switch } from "../parts/Switch";
import { useTyped } from "../parts/useTyped";
import { counted } from "../parts/words";
import { usePerson } from "../people/person";
import { face, tone } from "../theme";
import { useKeepView } from "../viewpoints/viewpoints";
import { disciplinesOf } from "./concerned";
import { listed, spokenDate, type Topic, WHICH } from "./listed";
import { useTopicsShown } from "./topicsState";
import { useStatuses, useTopicActs, useTopics } from "./useTopics";

/** The project's topics: those that are meant, found by what is typed; a click opens one. */
export function TopicList() {
  const { data, error } = useTopics();
  const { data: statuses = [] } = useStatuses();
  const { which, typed, put } = useTopicsShown();
  const me = usePerson((s) => s.name);
  const ends = useMemo(() => new Set(statuses.filter(({ end }) => end).map(({ name }) => name)), [statuses]);
  const shown = useMemo(() => listed(data ?? [], which, typed, me, ends), [data, which, typed, me, ends]);
  return (
    <Box>
      <NewTopic />
      <DeskHeading>Topics</DeskHeading>
      <OutlinedInput
        fullWidth
        size="small"
        placeholder="Reference, title, name, label"
        value={typed}
        onChange={(event) => put({ typed: event.target.value })}
        inputProps={{ "aria-label": "Find a topic" }}
      />
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, my: 0.75 }}>
        {WHICH.map(([key, name]) => (
          <Switch key={key} name={name} on={which === key} turn={() => put({ which: key })} />
        ))}
      </Box>
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && (
        <DeskNote>None yet. A topic is one problem: its views, who has it, and what was said of it.</DeskNote>
      )}
      {data && data.length > 0 && <DeskNote>{counted(shown.length, "topic")}</DeskNote>}
      {shown.map((topic) => (
        <Row key={topic.id} topic={topic} open={() => put({ opened: topic.id })} />
      ))}
    </Box>
  );
}

function Row({ topic, open }: { topic: Topic; open: () => void }) {
  const { reference, said, overdue } = topic;
  return (
    <Box
      component="button"
      type="button"
      data-testid="topic"
      onClick={open}
      sx={{
        display: "block",
        width: "100%",
        textAlign: "left",
        font: "inherit",
        fontSize: 13,
        color: tone.ink,
        bgcolor: "transparent",
        border: 0,
        borderTop: `1px solid ${tone.line}`,
        py: 0.75,
        px: 0,
        cursor: "pointer",
        "&:hover": { bgcolor: tone.film },
      }}
    >
      <Box sx={{ display: "flex", gap: 1, justifyContent: "space-between", alignItems: "baseline" }}>
        <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>
          {reference}
          {topic.new && (
            <Box component="span" sx={{ color: tone.here, fontWeight: 600, ml: 0.75 }}>
              new
            </Box>
          )}
        </Box>
        <Box sx={{ color: tone.soft }}>{said.status}</Box>
      </Box>
      <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>{said.title}</Box>
      <Box sx={{ color: tone.soft, display: "flex", gap: 1, flexWrap: "wrap" }}>
        {said.assigned_to && <span>{said.assigned_to}</span>}
        {said.due && (
          <Box component="span" sx={overdue ? { color: tone.ink, fontWeight: 600 } : {}}>
            {overdue ? "overdue since" : "by"} {spokenDate(said.due)}
          </Box>
        )}
      </Box>
    </Box>
  );
}

/** Makes a topic of what is seen: the present view, and the disciplines of what is picked. */
function NewTopic() {
  const { federation } = useOpen();
  const keep = useKeepView();
  const { make } = useTopicActs();
  const put = useTopicsShown((s) => s.put);
  const { typed: title, type: setTitle, kept } = useTyped();
  const [busy, setBusy] = useState(false);
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
      <DeskHeading>A topic of this view</DeskHeading>
      <Box sx={{ display: "flex", gap: 0.75 }}>
        <OutlinedInput
          fullWidth
          size="small"
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
