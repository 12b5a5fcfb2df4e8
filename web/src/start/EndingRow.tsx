import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { spokenDay } from "../open/dates";
import { tone } from "../style/theme";

/** Something that lasts until a day and may be ended before: a guest link or a token. */
export function EndingRow(props: {
  testId: string;
  name: string;
  says: string;
  usedAt: string | null;
  /** What the way to end it is called. */
  about: string;
  end: () => void;
}) {
  const { testId, name, says, usedAt, about, end } = props;
  return (
    <Box
      component="li"
      data-testid={testId}
      sx={{ borderTop: `1px solid ${tone.line}`, py: 1, display: "flex", gap: 1, alignItems: "baseline" }}
    >
      <Box sx={{ flex: 1, overflowWrap: "anywhere" }}>
        <Box sx={{ fontWeight: 600 }}>{name}</Box>
        <Box sx={{ color: tone.soft, fontSize: 13 }}>
          {says}
          {usedAt ? `, used on ${spokenDay(usedAt)}` : ", not used yet"}
        </Box>
      </Box>
      <Button variant="text" aria-label={about} onClick={end}>
        End it now
      </Button>
    </Box>
  );
}
