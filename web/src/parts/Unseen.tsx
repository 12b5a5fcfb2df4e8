import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** Words for who listens to the page instead of seeing it. */
export function Unseen({ children }: { children: ReactNode }) {
  return (
    <Box
      component="span"
      sx={{
        position: "absolute",
        width: 1,
        height: 1,
        overflow: "hidden",
        clipPath: "inset(50%)",
        whiteSpace: "nowrap",
      }}
    >
      {children}
    </Box>
  );
}
