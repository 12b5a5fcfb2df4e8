import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { face, tone } from "../style/theme";

/** Headings and rows of the small panels above the foot of the page. */
export function PanelHeading({ children }: { children: ReactNode }) {
  return (
    <Box
      component="h3"
      sx={{ m: 0, mt: 0.75, mb: 0.5, fontFamily: face.head, fontSize: 12, fontWeight: 600, color: tone.soft }}
    >
      {children}
    </Box>
  );
}

export function Row({ children }: { children: ReactNode }) {
  return <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, mb: 0.75 }}>{children}</Box>;
}
