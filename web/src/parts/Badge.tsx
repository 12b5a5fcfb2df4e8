import Box from "@mui/material/Box";
import { initials, inkOn, NO_COLOUR } from "../api/person";

/** Somebody in a circle: their initials on their colour. */
export function Badge({ name, short, colour }: { name: string; short: string; colour: string }) {
  const ground = colour || NO_COLOUR;
  return (
    <Box
      component="span"
      aria-hidden
      sx={{
        flexShrink: 0,
        width: 24,
        height: 24,
        borderRadius: "50%",
        bgcolor: ground,
        color: inkOn(ground),
        display: "inline-grid",
        placeItems: "center",
        fontSize: 10.5,
        fontWeight: 600,
      }}
    >
      {short || initials(name) || "?"}
    </Box>
  );
}
