import MenuItem from "@mui/material/MenuItem";
import Select from "@mui/material/Select";
import { useWalking } from "../api/queries";
import { useOpen } from "../open/useStage";
import { USUAL_BODY } from "../open/walking/walkState";

/** Who walks: the usual bodies and the project's own. */
export function BodySelect(props: {
  label: string;
  value: string;
  onChange: (body: string) => void;
  variant?: "standard";
}) {
  const { projectId } = useOpen();
  const { data } = useWalking(projectId, props.value);
  const names = data?.bodies.map((b) => b.name) ?? [USUAL_BODY];
  return (
    <Select
      size="small"
      fullWidth={!props.variant}
      variant={props.variant ?? "outlined"}
      value={names.includes(props.value) ? props.value : USUAL_BODY}
      onChange={(event) => props.onChange(event.target.value)}
      // On foot the next keys are for walking, not for choosing by letters.
      MenuProps={{ disableRestoreFocus: props.variant === "standard" }}
      inputProps={{ "aria-label": props.label }}
      sx={{ fontSize: 13 }}
    >
      {names.map((name) => (
        <MenuItem key={name} value={name} sx={{ fontSize: 13 }}>
          {name}
        </MenuItem>
      ))}
    </Select>
  );
}
