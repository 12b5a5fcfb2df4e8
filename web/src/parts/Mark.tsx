import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { tone } from "../style/theme";

/** Something unusual about the view, with the way out of it. */
export function Mark(props: {
  text: ReactNode;
  act: string;
  onAct: () => void;
  /** Something else that can be done about it. */
  more?: { act: string; onAct: () => void };
}) {
  return (
    <Box
      data-testid="stage-mark"
      sx={{
        bgcolor: tone.paper,
        border: `1px solid ${tone.here}`,
        borderLeft: `4px solid ${tone.here}`,
        px: 1,
        py: 0.4,
        fontSize: 13,
        display: "flex",
        gap: 1,
        alignItems: "center",
      }}
    >
      {props.text}
      <Button variant="text" onClick={props.onAct} sx={{ color: tone.here }}>
        {props.act}
      </Button>
      {props.more && (
        <Button variant="text" onClick={props.more.onAct} sx={{ color: tone.here }}>
          {props.more.act}
        </Button>
      )}
    </Box>
  );
}
