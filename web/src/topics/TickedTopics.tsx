import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Shapes } from "../api/client";
import type { Topic } from "../open/topics/listed";
import { useTopicsShown } from "../open/topics/topicsState";
import { useKnownPeople } from "../open/topics/useKnownPeople";
import { useTopicActs, useTopicRules } from "../open/topics/useTopics";
import { FIELD } from "../parts/field";
import { counted } from "../parts/words";
import { tone } from "../style/theme";

type Wish = Shapes["TopicRequest"];
type Field = "status" | "assigned_to" | "due" | "priority" | "kind" | "labels";

const FIELDS: readonly (readonly [Field, string])[] = [
  ["status", "Status"],
  ["assigned_to", "Assigned to"],
  ["due", "Due date"],
  ["priority", "Priority"],
  ["kind", "Kind"],
  ["labels", "Add a label"],
];

/** What is done with several topics at once: one field of all of them is set, all or none, with one undo. */
export function TickedTopics({ shown }: { shown: readonly Topic[] }) {
  const { ticked, put } = useTopicsShown();
  const { changeMany } = useTopicActs();
  const [field, setField] = useState<Field>("status");
  const [value, setValue] = useState("");
  const those = shown.filter(({ id }) => ticked.includes(id));
  if (!those.length) return null;
  const words = value.trim();
  const wish: Wish =
    field === "labels"
      ? { labels: { add: [words], drop: [] } }
      : { [field]: field === "due" && !words ? null : words };
  const able = words !== "" || (field !== "status" && field !== "labels");
  return (
    <Box
      component="form"
      data-testid="ticked-topics"
      onSubmit={async (event) => {
        event.preventDefault();
        if (able && (await changeMany(those, wish))) setValue("");
      }}
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        gap: 0.75,
        border: `1px solid ${tone.line}`,
        p: 0.75,
        my: 0.5,
        fontSize: 13,
        "& select, & input": { width: "auto", flex: "1 1 90px", minWidth: 80, maxWidth: 200 },
      }}
    >
      <Box component="span" sx={{ flex: "1 0 auto" }}>
        {counted(those.length, "topic")} ticked
      </Box>
      <Box
        component="select"
        aria-label="What to change of the ticked topics"
        value={field}
        onChange={(event: React.ChangeEvent<HTMLSelectElement>) => {
          const wanted = FIELDS.find(([name]) => name === event.target.value);
          if (wanted) setField(wanted[0]);
          setValue("");
        }}
        sx={FIELD}
      >
        {FIELDS.map(([name, label]) => (
          <option key={name} value={name}>
            {label}
          </option>
        ))}
      </Box>
      <Value field={field} value={value} put={setValue} topics={those} />
      <Button type="submit" variant="outlined" disabled={!able}>
        {words || field === "labels" || field === "status" ? "Set" : "Clear"}
      </Button>
      <Button variant="text" sx={{ ml: 0 }} onClick={() => put({ ticked: [] })}>
        None
      </Button>
    </Box>
  );
}

const NONE = { statuses: [], kinds: [], priorities: [] };

/** What the field is set to: chosen where it can only be one of some, else typed. */
function Value(props: {
  field: Field;
  value: string;
  put: (value: string) => void;
  topics: readonly Topic[];
}) {
  const { field, value, put, topics } = props;
  const people = useKnownPeople();
  const { statuses, kinds, priorities } = useTopicRules().data ?? NONE;
  const label = "What the ticked topics are set to";
  if (field === "status") {
    // One that each of them may have next, or has.
    const mayFollow = (from: string, to: string) =>
      from === to || (statuses.find(({ name }) => name === from)?.next ?? []).includes(to);
    const able = statuses.filter(({ name }) =>
      topics.every(({ said }) => mayFollow(said.status ?? "", name)),
    );
    return (
      <Box
        component="select"
        aria-label={label}
        value={value}
        onChange={(event: React.ChangeEvent<HTMLSelectElement>) => put(event.target.value)}
        sx={FIELD}
      >
        <option value="">{able.length ? "choose…" : "none fits all of them"}</option>
        {able.map(({ name }) => (
          <option key={name}>{name}</option>
        ))}
      </Box>
    );
  }
  const offered = { assigned_to: people, priority: priorities, kind: kinds, due: [], labels: [] }[field];
  return (
    <>
      <Box
        component="input"
        type={field === "due" ? "date" : "text"}
        list="ticked-topics-offered"
        aria-label={label}
        value={value}
        onChange={(event: React.ChangeEvent<HTMLInputElement>) => put(event.target.value)}
        sx={FIELD}
      />
      <datalist id="ticked-topics-offered">
        {offered.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
    </>
  );
}
