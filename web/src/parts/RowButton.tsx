import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { tone } from "../style/theme";

/** A row of a list that opens what it stands for. */
export function RowButton(props: { testId: string; open: () => void; children: ReactNode }) {
  return (
    <Box
      component="button"
      type="button"
      data-testid={props.testId}
      onClick={props.open}
      sx={{
        display: "block",
        width: "100%",
        textAlign: "left",
        font: "inherit",
        fontSize: 13,
        color: tone.ink,
        bgcolor: "transparent",
        border: 0,
        borderTop: `1px solid ${tone.line}`,
        py: 0.75,
        px: 0,
        cursor: "pointer",
        "&:hover": { bgcolor: tone.film },
      }}
    >
      {props.children}
    </Box>
  );
}
