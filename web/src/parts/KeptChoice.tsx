import Box from "@mui/material/Box";
import { tone } from "../style/theme";
import { FIELD } from "./field";
import { SavedMark } from "./SavedMark";
import { type KeptField, useKeptTyping } from "./useKeptTyping";

/** A choice that is kept as soon as it is made, and says so. */
export function KeptChoice(
  props: Omit<KeptField, "what"> & { label: string; of: string; choices: readonly string[] },
) {
  const { label, of, choices } = props;
  const { shown, state, done } = useKeptTyping({ ...props, what: label.toLowerCase() });
  return (
    <Box component="label" sx={{ fontSize: 12, color: tone.soft, display: "block", my: 0.5 }}>
      {label}
      <SavedMark state={state} />
      <Box
        component="select"
        aria-label={`${label} of ${of}`}
        value={shown}
        onChange={(event: React.ChangeEvent<HTMLSelectElement>) => done(event.target.value)}
        sx={FIELD}
      >
        {[...new Set([shown, ...choices])].map((name) => (
          <option key={name}>{name}</option>
        ))}
      </Box>
    </Box>
  );
}
