import Box from "@mui/material/Box";
import { useConnection } from "../api/connection";
import { tone } from "../style/theme";

/** One line, on whatever page, while the server or its database cannot be reached. */
export function AwayLine() {
  const away = useConnection((s) => s.away);
  if (!away) return null;
  return (
    <Box
      role="alert"
      data-testid="away"
      sx={{
        position: "fixed",
        top: 44,
        left: "50%",
        transform: "translateX(-50%)",
        zIndex: 2000,
        bgcolor: tone.ink,
        color: tone.paper,
        px: 2,
        py: 0.75,
        fontSize: 14,
        maxWidth: "92vw",
        boxShadow: "3px 3px 0 rgba(30,43,54,.25)",
      }}
    >
      Stair Path cannot be reached. It is retried automatically. Your work stays as it is.
    </Box>
  );
}
