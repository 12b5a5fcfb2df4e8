import Button from "@mui/material/Button";
import { tone } from "../style/theme";

/** A word that is on or off. */
export function Switch({ name, on, turn }: { name: string; on: boolean; turn: () => void }) {
  return (
    <Button
      variant="outlined"
      aria-pressed={on}
      onClick={turn}
      sx={{
        color: tone.ink,
        px: 1,
        py: 0,
        fontSize: 12.5,
        ...(on ? { "&, &:hover": { boxShadow: `inset 0 -3px 0 ${tone.here}` } } : {}),
      }}
    >
      {name}
    </Button>
  );
}
