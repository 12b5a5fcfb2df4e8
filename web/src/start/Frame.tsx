import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { usePerson } from "../api/person";
import { tone } from "../style/theme";
import { useMe } from "./useMe";
import { Who } from "./Who";

/** A page outside of any project: the name above, and one column to read. */
export function Frame({ title, children }: { title: string; children: ReactNode }) {
  const me = useMe().data;
  const name = usePerson((s) => s.name);
  const known = me?.closed ? me.person !== null : name !== "";
  return (
    <Box sx={{ height: "100%", overflow: "auto", bgcolor: tone.film }}>
      <Box
        component="header"
        sx={{
          bgcolor: tone.ink,
          height: 44,
          display: "flex",
          alignItems: "center",
          px: 1.75,
          fontSize: 18,
          fontWeight: 600,
          "& a": { color: tone.paper, textDecoration: "none" },
        }}
      >
        <Link to="/">Stair Path</Link>
        {known && (
          <Box sx={{ ml: "auto" }}>
            <Who />
          </Box>
        )}
      </Box>
      <Box sx={{ maxWidth: 1080, mx: "auto", p: 4 }}>
        <Box component="h1" sx={{ fontSize: 26, fontWeight: 600, m: 0, mb: 0.5 }}>
          {title}
        </Box>
        {children}
      </Box>
    </Box>
  );
}
