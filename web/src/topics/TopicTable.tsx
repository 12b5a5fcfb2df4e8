import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useEffect, useState } from "react";
import { GROUPS, WHICH } from "../open/topics/listed";
import { COLUMNS, USUAL_HEIGHT_PX, useTopicColumns } from "../open/topics/topicColumns";
import { useTopicsShown } from "../open/topics/topicsState";
import { useListedTopics } from "../open/topics/useListedTopics";
import { Divider } from "../parts/Divider";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";
import { TickedTopics } from "./TickedTopics";
import { TopicChoice } from "./TopicChoice";
import { TopicTableRows } from "./TopicTableRows";

const LEAST_PX = 140;
const LEFT_FOR_STAGE_PX = 220;

/** Topics as a table: below stage and board, or in their place. */
export function TopicTable() {
  const table = useTopicsShown((s) => s.table);
  return table && <Opened alone={table === "alone"} />;
}

function Opened({ alone }: { alone: boolean }) {
  const { which, typed, group, put } = useTopicsShown();
  const { heightPx, set } = useTopicColumns();
  const { shown, rows, count } = useListedTopics();
  const [choosing, setChoosing] = useState(false);
  const most = useMostPx();
  return (
    <Box
      data-testid="topic-table"
      component="section"
      aria-label="Table of topics"
      sx={{
        ...(alone
          ? { gridRow: "2 / 4", gridColumn: "1 / 3", zIndex: 4 }
          : { gridArea: "below", height: Math.min(heightPx, most), borderTop: `1px solid ${tone.ink}` }),
        position: "relative",
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        minWidth: 0,
        bgcolor: tone.paper,
      }}
    >
      {!alone && (
        <Divider
          label="Height of the table, pixels"
          edge="top"
          value={heightPx}
          least={LEAST_PX}
          most={most}
          step={24}
          usual={USUAL_HEIGHT_PX}
          at={(pane, clientY) => pane.getBoundingClientRect().bottom - clientY}
          put={(px) => set({ heightPx: px })}
        />
      )}
      <Box
        sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1.25, px: 1.25, py: 0.5 }}
      >
        <Box component="h2" sx={{ fontSize: 14, fontWeight: 600, m: 0 }}>
          Topics, {count}
        </Box>
        <OutlinedInput
          size="small"
          placeholder="Reference, title, person, level, label"
          value={typed}
          onChange={(event) => put({ typed: event.target.value })}
          inputProps={{ "aria-label": "Find a topic in the table" }}
          sx={{ width: 260, "& input": { py: 0.4 } }}
        />
        <TopicChoice
          label="Which topics in the table"
          value={which}
          of={WHICH}
          put={(of) => put({ which: of })}
        />
        <TopicChoice label="Group the table" value={group} of={GROUPS} put={(by) => put({ group: by })} />
        <Button variant="text" aria-expanded={choosing} onClick={() => setChoosing(!choosing)}>
          Columns
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button variant="text" onClick={() => put({ table: alone ? "below" : "alone" })}>
          {alone ? "Below the stage" : "In place of the stage"}
        </Button>
        <Button variant="text" aria-label="Close the table of topics" onClick={() => put({ table: null })}>
          Close
        </Button>
      </Box>
      {choosing && <ColumnChoice />}
      <Box sx={{ px: 1.25 }}>
        <TickedTopics shown={shown} />
      </Box>
      <TopicTableRows rows={rows} />
    </Box>
  );
}

/** Which columns stand in the table. */
function ColumnChoice() {
  const { columns, set } = useTopicColumns();
  return (
    <Box
      role="group"
      aria-label="Columns of the table"
      sx={{ display: "flex", flexWrap: "wrap", columnGap: 1.5, px: 1.25, pb: 0.5 }}
    >
      {COLUMNS.map(({ key, name }) => (
        <Tick
          key={key}
          label={name}
          on={columns.includes(key)}
          set={(on) => set({ columns: on ? [...columns, key] : columns.filter((each) => each !== key) })}
        />
      ))}
    </Box>
  );
}

/** So high the table may be, so that something of the stage is left; it follows the window. */
function useMostPx(): number {
  const [high, setHigh] = useState(window.innerHeight);
  useEffect(() => {
    const measure = () => setHigh(window.innerHeight);
    window.addEventListener("resize", measure);
    return () => window.removeEventListener("resize", measure);
  }, []);
  return Math.max(LEAST_PX, high - 80 - LEFT_FOR_STAGE_PX);
}
