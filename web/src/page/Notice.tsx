import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { AWAY } from "../api/client";
import { onBack } from "../api/connection";
import { useSession } from "../open/session";
import { useStageNews } from "../open/useStage";
import { tone } from "../style/theme";

const STAYS_MS = 9000;
/** What offers a way back is read, thought over and reached with the pointer. */
const OFFERS_MS = 20_000;

/** What just happened or went wrong, in one sentence, with a way back where there is one. */
export function Notice() {
  const notice = useSession((s) => s.notice);
  const hush = useSession((s) => s.hush);
  // While the building comes in nobody reads it: its time begins once the building is drawn.
  const drawing = useStageNews((s) => s.pending > 0);
  // It is not taken away under the pointer of who is about to use it.
  const [over, setOver] = useState(false);
  useEffect(() => {
    if (!notice) setOver(false);
    if (!notice || notice.stays || drawing || over) return;
    const timer = window.setTimeout(hush, notice.undo ? OFFERS_MS : STAYS_MS);
    return () => window.clearTimeout(timer);
  }, [notice, drawing, over, hush]);
  // What could not be done for want of the server can be done now.
  useEffect(() => onBack(() => useSession.getState().notice?.text === AWAY && hush()), [hush]);
  if (!notice) return null;
  return (
    <Box
      role="status"
      onPointerEnter={() => setOver(true)}
      onPointerLeave={() => setOver(false)}
      sx={{
        justifySelf: "center",
        bgcolor: tone.paper,
        border: `1px solid ${tone.ink}`,
        boxShadow: "3px 3px 0 rgba(30,43,54,.15)",
        px: 1.5,
        py: 0.75,
        display: "flex",
        gap: 1.25,
        alignItems: "center",
        maxWidth: 620,
        // What it says is in nobody's way: only its buttons take clicks.
        "& > button": { pointerEvents: "auto" },
        fontSize: 13.5,
      }}
    >
      {notice.text}
      {notice.undo && (
        <Button
          variant="outlined"
          onClick={() => {
            notice.undo?.();
            hush();
          }}
        >
          {notice.called}
        </Button>
      )}
      <Button variant="text" onClick={hush} aria-label="Close this note">
        Close
      </Button>
    </Box>
  );
}
