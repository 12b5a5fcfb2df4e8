import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** Words for who listens to the page instead of seeing it. */
export function Unseen({ children }: { children: ReactNode }) {
  return (
    <Box
      component="span"
      // It takes no room and stays inside of what it stands in, also where that is cut off.
      sx={{
        display: "block",
        width: "1px",
        height: "1px",
        mb: "-1px",
        overflow: "hidden",
        clipPath: "inset(50%)",
        whiteSpace: "nowrap",
      }}
    >
      {children}
    </Box>
  );
}
