import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { face, tone } from "../style/theme";

/** The heading of a part of a desk's task. */
export function DeskHeading({ children }: { children: ReactNode }) {
  return (
    <Box
      component="h3"
      sx={{
        m: 0,
        mt: 2,
        mb: 0.75,
        fontFamily: face.head,
        fontSize: 12,
        letterSpacing: ".06em",
        color: tone.soft,
        textTransform: "uppercase",
      }}
    >
      {children}
    </Box>
  );
}

/** What can be done with something, in a row that goes on in the next line where there is no room. */
export function DeskActs({ children }: { children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1.5, "&& .MuiButton-text": { ml: 0 } }}>
      {children}
    </Box>
  );
}

/** What a task says where there is nothing to show, and how it is used. */
export function DeskNote({ children }: { children: ReactNode }) {
  return <Box sx={{ color: tone.soft, fontSize: 13, lineHeight: 1.45 }}>{children}</Box>;
}
