import Box from "@mui/material/Box";
import { tone } from "../style/theme";
import type { Typed } from "./useKeptTyping";

const SAID: Record<Typed, string> = {
  typed: "not saved yet",
  saving: "saving…",
  waiting: "waits for the connection",
  refused: "not saved",
  said: "saved",
};

/** Whether what stands in a field is saved. */
export function SavedMark({ state }: { state: Typed | null }) {
  if (!state) return null;
  const wrong = state === "waiting" || state === "refused";
  return (
    <Box
      component="span"
      role={wrong ? "alert" : undefined}
      data-testid="saved-mark"
      sx={{ float: "right", fontWeight: wrong ? 600 : 400, color: wrong ? tone.wrong : tone.soft }}
    >
      {SAID[state]}
    </Box>
  );
}
