import Box from "@mui/material/Box";
import { tone } from "../style/theme";

/** A small box to tick in a list, without words beside it. */
export function TickBox(props: { label: string; title?: string; on: boolean; turn: () => void }) {
  return (
    <Box
      component="input"
      type="checkbox"
      aria-label={props.label}
      title={props.title}
      checked={props.on}
      onChange={props.turn}
      sx={{ m: 0, flex: "none", accentColor: tone.ink }}
    />
  );
}
