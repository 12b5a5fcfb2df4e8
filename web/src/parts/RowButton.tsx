import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { tone } from "../style/theme";

/** A row of a list that opens what it stands for. */
export function RowButton(props: {
  testId: string;
  open: () => void;
  /** Whether the line above it is drawn by what it stands in. */
  bare?: boolean;
  children: ReactNode;
}) {
  return (
    <Box
      component="button"
      type="button"
      data-testid={props.testId}
      onClick={props.open}
      sx={{
        display: "block",
        width: "100%",
        minWidth: 0,
        textAlign: "left",
        font: "inherit",
        fontSize: 13,
        color: tone.ink,
        bgcolor: "transparent",
        border: 0,
        borderTop: props.bare ? 0 : `1px solid ${tone.line}`,
        py: props.bare ? 0.4 : 0.75,
        px: 0,
        cursor: "pointer",
        "&:hover": { bgcolor: tone.film },
      }}
    >
      {props.children}
    </Box>
  );
}
