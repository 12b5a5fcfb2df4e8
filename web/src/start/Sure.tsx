import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { tone } from "../style/theme";

/** What follows from something, before it is done: it is done or left. */
export function Sure(props: {
  says: ReactNode;
  yes: string;
  act: () => void;
  leave: () => void;
  disabled?: boolean;
  /** What has to be typed first. */
  children?: ReactNode;
}) {
  const { says, yes, act, leave, disabled, children } = props;
  return (
    <Box sx={{ borderLeft: `3px solid ${tone.here}`, pl: 1.5, my: 1, fontSize: 14, display: "grid", gap: 1 }}>
      <Box>{says}</Box>
      {children}
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="contained" disabled={disabled ?? false} onClick={act}>
          {yes}
        </Button>
        <Button variant="text" onClick={leave}>
          Cancel
        </Button>
      </Box>
    </Box>
  );
}
