import Box from "@mui/material/Box";
import { spokenDay } from "../open/dates";
import type { Topic } from "../open/topics/listed";
import { RowButton } from "../parts/RowButton";
import { face, tone } from "../style/theme";

/** A topic in a list: what it is called, what it is, who has it, and by when. */
export function TopicRow({ topic, open }: { topic: Topic; open: () => void }) {
  const { reference, said, overdue } = topic;
  return (
    <RowButton testId="topic" open={open}>
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
            {overdue ? "overdue since" : "by"} {spokenDay(said.due)}
          </Box>
        )}
      </Box>
    </RowButton>
  );
}
