import Box from "@mui/material/Box";
import { KeptText } from "../parts/KeptText";
import { type Meeting, useMeetingActs } from "./useMeetings";

const minutesOf = (time: string | null) => time?.slice(0, 5) ?? "";
const given = (typed: string) => typed || null;

/** When a meeting was held, and when the next one is. */
export function Times({ meeting }: { meeting: Meeting }) {
  const { change } = useMeetingActs();
  const { id, from_time, to_time, next_on, next_time } = meeting;
  const about = (what: string) => ({ field: `${what} of meeting ${id}`, of: "the meeting" });
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "repeat(2, minmax(0, 1fr))", columnGap: 1 }}>
      <KeptText
        label="From"
        kind="time"
        {...about("from")}
        value={minutesOf(from_time)}
        keep={(typed) => change(id, { hours: { from_time: given(typed), to_time } })}
      />
      <KeptText
        label="To"
        kind="time"
        {...about("to")}
        value={minutesOf(to_time)}
        keep={(typed) => change(id, { hours: { from_time, to_time: given(typed) } })}
      />
      <KeptText
        label="Next meeting"
        kind="date"
        {...about("next")}
        value={next_on ?? ""}
        keep={(typed) => change(id, { next: { on: given(typed), at: next_time } })}
      />
      <KeptText
        label="Next meeting, at"
        kind="time"
        {...about("next time")}
        value={minutesOf(next_time)}
        keep={(typed) => change(id, { next: { on: next_on, at: given(typed) } })}
      />
    </Box>
  );
}
