import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { spokenDay } from "../open/dates";
import { useKnownPeople } from "../open/topics/useKnownPeople";
import { DeskActs } from "../parts/desk";
import { FIELD } from "../parts/field";
import { KeptText } from "../parts/KeptText";
import { Only } from "../parts/Only";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";
import { type Point, useMeetingActs } from "./useMeetings";

/** Something that was noted in a meeting; it can be corrected and taken away. */
export function Noted({ point }: { point: Point }) {
  const { takeAway } = useMeetingActs();
  const [correcting, setCorrecting] = useState(false);
  return (
    <Box
      data-testid="point"
      sx={{
        fontSize: 13,
        borderLeft: `${point.decision ? 4 : 1}px solid ${tone.ink}`,
        pl: 0.75,
        my: 0.5,
        overflowWrap: "anywhere",
      }}
    >
      {correcting ? (
        <Correcting point={point} />
      ) : (
        <>
          {point.decision && <b>Decided: </b>}
          {point.text}
          {(point.who || point.until) && (
            <Box sx={{ color: tone.soft }}>
              {point.who || "not assigned"}
              {point.until && `, by ${spokenDay(point.until)}`}
            </Box>
          )}
        </>
      )}
      <Only to="hold meetings">
        <DeskActs>
          <Button variant="text" onClick={() => setCorrecting(!correcting)}>
            {correcting ? "Done" : "Correct"}
          </Button>
          <Button variant="text" onClick={() => void takeAway(point)}>
            Remove
          </Button>
        </DeskActs>
      </Only>
    </Box>
  );
}

function Correcting({ point }: { point: Point }) {
  const { correct } = useMeetingActs();
  const people = useKnownPeople();
  return (
    <>
      <KeptText
        label="Note"
        field={`text of note ${point.id}`}
        of="the meeting"
        rows={3}
        value={point.text}
        keep={(text) => correct(point, { text })}
      />
      <KeptText
        label="Assigned to"
        field={`who of note ${point.id}`}
        of="the note"
        value={point.who}
        offered={people}
        keep={(who) => correct(point, { who })}
      />
      <Box component="label" sx={{ fontSize: 12, color: tone.soft, display: "block" }}>
        Due
        <Box
          component="input"
          type="date"
          aria-label="Due date of the note"
          value={point.until ?? ""}
          onChange={(event) => void correct(point, { until: event.target.value || null })}
          sx={FIELD}
        />
      </Box>
      <Tick label="decided" on={point.decision} set={(decision) => void correct(point, { decision })} />
    </>
  );
}
