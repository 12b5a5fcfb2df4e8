import Box from "@mui/material/Box";
import NativeSelect from "@mui/material/NativeSelect";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useMemo } from "react";
import { usePerson } from "../api/person";
import { GROUPS, listed, rowsOf, SORTS, WHICH } from "../open/topics/listed";
import { useTopicsShown } from "../open/topics/topicsState";
import { useTopicRules, useTopics } from "../open/topics/useTopics";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Switch } from "../parts/Switch";
import { Tick } from "../parts/Tick";
import { counted } from "../parts/words";
import { NewTopic } from "./NewTopic";
import { RulesForm } from "./RulesForm";
import { TopicFilesInOut } from "./TopicFilesInOut";
import { TopicRows } from "./TopicRows";

/** The project's topics: those that are meant, found by what is typed, sorted and grouped; a click opens one. */
export function TopicList() {
  const { data, error } = useTopics();
  const { data: rules } = useTopicRules();
  const { which, typed, sort, group, marked, put } = useTopicsShown();
  const me = usePerson((s) => s.name);
  const ends = useMemo(
    () => new Set(rules?.statuses.filter(({ end }) => end).map(({ name }) => name)),
    [rules],
  );
  const shown = useMemo(() => listed(data ?? [], which, typed, me, ends), [data, which, typed, me, ends]);
  const rows = useMemo(() => rowsOf(shown, sort, group, rules?.priorities), [shown, sort, group, rules]);
  return (
    <Box sx={{ display: "flex", flexDirection: "column", minHeight: "100%", height: "100%" }}>
      <NewTopic />
      <DeskHeading>Topics</DeskHeading>
      <OutlinedInput
        fullWidth
        size="small"
        placeholder="Reference, title, person, level, label"
        value={typed}
        onChange={(event) => put({ typed: event.target.value })}
        inputProps={{ "aria-label": "Find a topic" }}
      />
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, my: 0.75 }}>
        {WHICH.map(([key, name]) => (
          <Switch key={key} name={name} on={which === key} turn={() => put({ which: key })} />
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", "& select": { fontSize: 13, py: 0.25 } }}>
        <NativeSelect
          value={sort}
          inputProps={{ "aria-label": "Sort the topics" }}
          onChange={(event) => {
            const wanted = SORTS.find(([name]) => name === event.target.value);
            if (wanted) put({ sort: wanted[0] });
          }}
        >
          {SORTS.map(([name, words]) => (
            <option key={name} value={name}>
              {words}
            </option>
          ))}
        </NativeSelect>
        <NativeSelect
          value={group}
          inputProps={{ "aria-label": "Group the topics" }}
          onChange={(event) => {
            const wanted = GROUPS.find(([name]) => name === event.target.value);
            if (wanted) put({ group: wanted[0] });
          }}
        >
          {GROUPS.map(([name, words]) => (
            <option key={name} value={name}>
              {words}
            </option>
          ))}
        </NativeSelect>
      </Box>
      {data && data.length > 0 && (
        <Tick label="Show on stage, board and plan" on={marked} set={(on) => put({ marked: on })} />
      )}
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && (
        <DeskNote>No topics yet. A topic is one problem with its views, its assignee and comments.</DeskNote>
      )}
      {data && data.length > 0 && <DeskNote>{counted(shown.length, "topic")}</DeskNote>}
      <TopicRows rows={rows} />
      <RulesForm />
      <TopicFilesInOut shown={shown} all={data?.length ?? 0} />
    </Box>
  );
}
