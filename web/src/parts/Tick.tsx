import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";

/** A small box to tick, with what it says beside it. */
export function Tick(props: { label: string; on: boolean; set: (on: boolean) => void }) {
  return (
    <FormControlLabel
      // In a row it keeps its words on one line; where it stands alone they may need two.
      sx={{ m: 0, flexShrink: 0, maxWidth: "100%", "& .MuiFormControlLabel-label": { fontSize: 13 } }}
      control={
        <Checkbox
          size="small"
          sx={{ p: 0.25, mr: 0.25 }}
          checked={props.on}
          onChange={(event) => props.set(event.target.checked)}
        />
      }
      label={props.label}
    />
  );
}
