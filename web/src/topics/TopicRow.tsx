import Box from "@mui/material/Box";
import { spokenDay } from "../open/dates";
import type { Topic } from "../open/topics/listed";
import { RowButton } from "../parts/RowButton";
import { CUT_OFF, face, tone } from "../style/theme";
import { TickTopic } from "./TickTopic";
import { TopicPicture } from "./TopicPicture";

/** A topic in a list: its picture, what it is, what it is called, how it stands, who has it, and by when. */
export function TopicRow({ topic, open }: { topic: Topic; open: () => void }) {
  const { reference, said, overdue } = topic;
  return (
    <Box sx={{ display: "flex", gap: 0.75, alignItems: "center", borderTop: `1px solid ${tone.line}` }}>
      <TickTopic topic={topic} />
      <RowButton testId="topic" open={open} bare>
        <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
          <TopicPicture topic={topic} />
          <Box sx={{ minWidth: 0, flex: 1, lineHeight: 1.3 }}>
            <Box sx={{ fontWeight: 600, ...CUT_OFF }} title={said.title}>
              {said.title}
              {topic.new && (
                <Box component="span" sx={{ color: tone.pickInk, ml: 0.75 }}>
                  new
                </Box>
              )}
            </Box>
            <Box sx={{ color: tone.soft, fontSize: 12, ...CUT_OFF }}>
              <Box component="span" sx={{ fontFamily: face.figure, color: tone.ink, mr: 0.75 }}>
                {reference}
              </Box>
              {said.status}
              {said.due && (
                <Box component="span" sx={overdue ? { color: tone.ink, fontWeight: 600 } : {}}>
                  , {overdue ? "overdue since" : "by"} {spokenDay(said.due)}
                </Box>
              )}
              {said.assigned_to && `, ${said.assigned_to}`}
            </Box>
          </Box>
        </Box>
      </RowButton>
    </Box>
  );
}
