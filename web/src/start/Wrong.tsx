import Box from "@mui/material/Box";
import { tone } from "../style/theme";

/** What went wrong, in a sentence; nothing while nothing did. Readers of the screen hear it at once. */
export function Wrong({ text }: { text: string | undefined }) {
  return (
    <Box role="alert" sx={{ color: tone.wrong, my: 1, "&:empty": { display: "none" } }}>
      {text}
    </Box>
  );
}
