import Box from "@mui/material/Box";
import { MeetingDesk } from "../meetings/MeetingDesk";
import { useTopicsShown } from "../open/topics/topicsState";
import { Switch } from "../parts/Switch";
import { TopicsDesk } from "../topics/TopicsDesk";

/** The problems of the project, or the meetings where they are dealt with. */
export function TopicsTask() {
  const { meeting, put } = useTopicsShown();
  return (
    <Box sx={{ display: "flex", flexDirection: "column", height: "100%" }}>
      <Box sx={{ display: "flex", gap: 0.5 }}>
        <Switch name="Problems" on={!meeting} turn={() => put({ meeting: false })} />
        <Switch name="Meetings" on={meeting} turn={() => put({ meeting: true })} />
      </Box>
      <Box sx={{ flex: 1, minHeight: 0 }}>{meeting ? <MeetingDesk /> : <TopicsDesk />}</Box>
    </Box>
  );
}
