import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Shapes } from "../api/client";
import type { TopicsTask } from "../open/tasks/task";
import { useTaskActs } from "../open/tasks/useTasks";
import { useKnownPeople } from "../open/topics/useKnownPeople";
import { useTopicRules } from "../open/topics/useTopics";
import { DeskNote } from "../parts/desk";
import { FIELD } from "../parts/field";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { Differences } from "./Differences";
import { usePreview } from "./useTopicFiles";

type Unknown = Shapes["UnknownWord"];
type Field = Unknown["field"];

const HEADING: Readonly<Record<Field, string>> = {
  status: "Statuses that this project does not have",
  kind: "Kinds that this project does not have",
  priority: "Priorities that this project does not have",
  people: "People whom this project does not know",
};
const FIELDS: readonly Field[] = ["status", "kind", "priority", "people"];
const NO_RULES = { statuses: [], kinds: [], priorities: [] };

/** What a file of topics would bring, and what its words become here; nothing is imported before somebody says so. */
export function ImportPreview({ task }: { task: TopicsTask }) {
  const { data, error } = usePreview(task);
  const { again } = useTaskActs();
  const [becomes, setBecomes] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  if (error) return <DeskNote>{error.message}</DeskNote>;
  if (!data) return <DeskNote>Loading…</DeskNote>;
  const unknown = data.unknown ?? [];
  const chosen = (each: Unknown) => becomes[keyOf(each)] ?? each.becomes ?? "";
  const words = (field: Field) =>
    Object.fromEntries(
      unknown.filter((each) => each.field === field).map((each) => [each.word, chosen(each)]),
    );
  const run = async () => {
    setBusy(true);
    await again(task.id, {
      kind: "topics",
      file: "",
      file_name: "",
      shift_m: task.wish.shift_m ?? [0, 0, 0],
      preview: false,
      words: {
        status: words("status"),
        kind: words("kind"),
        priority: words("priority"),
        people: words("people"),
      },
    });
    setBusy(false);
  };
  const count = (data.new ?? 0) + (data.changed ?? 0) + (data.same ?? 0);
  return (
    <Box data-testid="import-preview">
      <Box>{spoken(data)}</Box>
      {FIELDS.map((field) => {
        const those = unknown.filter((each) => each.field === field);
        return those.length ? (
          <Box key={field} sx={{ mt: 0.75 }}>
            <Box sx={{ fontWeight: 600 }}>{HEADING[field]}</Box>
            {those.map((each) => (
              <Becomes
                key={each.word}
                unknown={each}
                value={chosen(each)}
                put={(to) => setBecomes({ ...becomes, [keyOf(each)]: to })}
              />
            ))}
          </Box>
        ) : null;
      })}
      {unknown.length > 0 && <DeskNote>What you choose is remembered for the next file.</DeskNote>}
      <Differences preview={data} />
      {(data.problems ?? []).map((text) => (
        <Box key={text} sx={{ color: tone.wrong, fontSize: 12.5, overflowWrap: "anywhere" }}>
          {text}
        </Box>
      ))}
      <Button variant="contained" disabled={busy || !count} onClick={() => void run()} sx={{ mt: 0.75 }}>
        {busy ? "Importing…" : `Import ${counted(count, "topic")}`}
      </Button>
    </Box>
  );
}

const keyOf = ({ field, word }: Unknown) => `${field} ${word}`;

/** The counts as one says them. */
function spoken(data: Shapes["TopicsPreview"]): string {
  const parts = [
    [data.new, "new"],
    [data.changed, "changed"],
    [data.same, "unchanged"],
  ].flatMap(([count, what]) => (count ? [`${count} ${what}`] : []));
  const more = [
    data.viewpoints ? counted(data.viewpoints, "new viewpoint") : "",
    data.comments ? counted(data.comments, "new comment") : "",
    data.deleted ? `${data.deleted} deleted here, restored by the import` : "",
  ].filter(Boolean);
  return `${[...parts, ...more].join(", ") || "There is no topic in it"}.`;
}

/** A word of the file, and what it becomes here. */
function Becomes(props: { unknown: Unknown; value: string; put: (to: string) => void }) {
  const { unknown, value, put } = props;
  const { field, word, count } = unknown;
  const { statuses, kinds, priorities } = useTopicRules().data ?? NO_RULES;
  const people = useKnownPeople();
  const offered = { status: statuses.map(({ name }) => name), kind: kinds, priority: priorities, people }[
    field
  ];
  return (
    <Box component="label" sx={{ display: "flex", gap: 0.75, alignItems: "center", my: 0.25 }}>
      <Box component="span" sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
        {word} <span style={{ color: tone.soft }}>{count}</span>
      </Box>
      <Box
        component="select"
        aria-label={`What ${word} becomes`}
        value={value}
        onChange={(event: React.ChangeEvent<HTMLSelectElement>) => put(event.target.value)}
        sx={{ ...FIELD, width: 118, flex: "none" }}
      >
        <option value="">stays as it is</option>
        {[...new Set(value ? [value, ...offered] : offered)].map((name) => (
          <option key={name}>{name}</option>
        ))}
      </Box>
    </Box>
  );
}
