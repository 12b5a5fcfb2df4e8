import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import type { FormEvent } from "react";
import { spokenDay } from "../open/dates";
import { useTyped } from "../open/drafts";
import { useShowPlace } from "../open/topics/useOpenTopic";
import { useTopics } from "../open/topics/useTopics";
import { BinLink } from "../parts/BinLink";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { RowButton } from "../parts/RowButton";
import { tone } from "../style/theme";
import { MeetingOpen } from "./MeetingOpen";
import { type Meeting, useMeetingActs, useMeetingShown, useMeetings } from "./useMeetings";

/** The project's meetings: the one that is open, or all of them and the beginning of another. */
export function MeetingDesk() {
  const opened = useMeetingShown((s) => s.opened);
  if (opened) return <MeetingOpen key={opened} id={opened} />;
  return (
    <Box data-testid="meetings">
      <Only to="hold meetings">
        <Begin />
      </Only>
      <All />
      <BinLink />
    </Box>
  );
}

function All() {
  const { data, error } = useMeetings();
  const put = useMeetingShown((s) => s.put);
  return (
    <>
      <DeskHeading>Meetings</DeskHeading>
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && (
        <DeskNote>
          No meetings yet. A meeting starts with open, overdue and new topics. The minutes are written from
          your notes.
        </DeskNote>
      )}
      {data?.map((meeting) => (
        <Row key={meeting.id} meeting={meeting} open={() => put({ opened: meeting.id, at: null })} />
      ))}
    </>
  );
}

function Row({ meeting, open }: { meeting: Meeting; open: () => void }) {
  return (
    <RowButton testId="meeting" open={open}>
      <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>{meeting.title}</Box>
      <Box sx={{ color: tone.soft }}>
        {spokenDay(meeting.held_on)}
        {meeting.ended_at ? "" : ", not ended"}
      </Box>
    </RowButton>
  );
}

function Begin() {
  const { begin } = useMeetingActs();
  const { data: topics = [] } = useTopics();
  const show = useShowPlace();
  const put = useMeetingShown((s) => s.put);
  const { typed, type, kept } = useTyped("a meeting");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const made = await begin(typed.trim());
    if (!made) return;
    kept(typed);
    const [first] = made.topics;
    put({ opened: made.id, at: first ?? null });
    // A meeting begins at the place of its first point.
    const topic = topics.find(({ id }) => id === first);
    if (topic) show(topic);
  };
  return (
    <form onSubmit={submit}>
      <DeskHeading>Begin a meeting</DeskHeading>
      <Box sx={{ display: "flex", gap: 0.75 }}>
        <OutlinedInput
          fullWidth
          size="small"
          value={typed}
          placeholder="Meeting of today"
          onChange={(event) => type(event.target.value)}
          inputProps={{ "aria-label": "Title of the meeting", maxLength: 120 }}
        />
        <Button type="submit" variant="contained">
          Begin
        </Button>
      </Box>
    </form>
  );
}
