import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** A part of the page under a heading. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" sx={{ maxWidth: 380, mb: 4 }}>
      <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0, mb: 1 }}>
        {title}
      </Box>
      {children}
    </Box>
  );
}
