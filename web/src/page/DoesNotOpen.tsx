import Box from "@mui/material/Box";
import { Link } from "react-router";
import { Frame } from "../start/Frame";
import { tone } from "../style/theme";

/** In place of a project that does not open, or not any more: why, and the way back. */
export function DoesNotOpen({ why }: { why: string }) {
  return (
    <Frame title="This project does not open">
      <Box role="alert" sx={{ my: 2 }}>
        {why}
      </Box>
      <Box sx={{ "& a": { color: tone.here } }}>
        <Link to="/">Go to your projects</Link>
      </Box>
    </Frame>
  );
}
