import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { GROUPS, SORTS, WHICH } from "../open/topics/listed";
import { useTopicsShown } from "../open/topics/topicsState";
import { useListedTopics } from "../open/topics/useListedTopics";
import { useTopics } from "../open/topics/useTopics";
import { BinLink } from "../parts/BinLink";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { Tick } from "../parts/Tick";
import { NewTopic } from "./NewTopic";
import { RulesForm } from "./RulesForm";
import { TickedTopics } from "./TickedTopics";
import { TopicChoice } from "./TopicChoice";
import { TopicFilesInOut } from "./TopicFilesInOut";
import { TopicRows } from "./TopicRows";

/** The project's topics: those that are meant, found by what is typed, sorted and grouped; a click opens one. */
export function TopicList() {
  const { data, error } = useTopics();
  const { which, typed, sort, group, marked, table, put } = useTopicsShown();
  const { shown, rows, count } = useListedTopics();
  return (
    <Box sx={{ display: "flex", flexDirection: "column", minHeight: "100%", height: "100%" }}>
      <Only to="write topics and comments">
        <NewTopic />
      </Only>
      <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
        <DeskHeading>{data?.length ? `Topics, ${count}` : "Topics"}</DeskHeading>
        {data && data.length > 0 && (
          <Button
            variant="text"
            sx={{ ml: "auto" }}
            onClick={() => put({ table: table ? null : "below" })}
            aria-pressed={table !== null}
          >
            {table ? "Close the table" : "Table"}
          </Button>
        )}
      </Box>
      <OutlinedInput
        fullWidth
        size="small"
        placeholder="Reference, title, person, level, label"
        value={typed}
        onChange={(event) => put({ typed: event.target.value })}
        inputProps={{ "aria-label": "Find a topic" }}
      />
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1, my: 0.5 }}>
        <TopicChoice label="Which topics" value={which} of={WHICH} put={(of) => put({ which: of })} />
        <TopicChoice
          label="Sort the topics"
          value={sort}
          of={SORTS}
          put={(by) => put({ sort: by, falling: false })}
        />
        <TopicChoice label="Group the topics" value={group} of={GROUPS} put={(by) => put({ group: by })} />
        {data && data.length > 0 && (
          <Tick label="on stage and plan" on={marked} set={(on) => put({ marked: on })} />
        )}
      </Box>
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && (
        <DeskNote>No topics yet. A topic is one problem with its views, its assignee and comments.</DeskNote>
      )}
      <Only to="change topics">
        <TickedTopics shown={shown} />
      </Only>
      <TopicRows rows={rows} />
      <Only to="change the rules of the project">
        <RulesForm />
      </Only>
      <TopicFilesInOut shown={shown} all={data?.length ?? 0} />
      <BinLink />
    </Box>
  );
}
