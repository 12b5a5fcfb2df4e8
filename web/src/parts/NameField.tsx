import Box from "@mui/material/Box";
import { tone } from "../style/theme";
import { SavedMark } from "./SavedMark";
import { type KeptField, useKeptTyping } from "./useKeptTyping";

/** A name of one's own, kept on Enter and when it is left; an empty one is not taken. */
export function NameField(
  props: Omit<KeptField, "what"> & {
    label: string;
    /** Whose name it is, for who hears the page. */
    about: string;
  },
) {
  const { label, about } = props;
  const { shown, state, type, done, giveUp } = useKeptTyping({ ...props, what: label.toLowerCase() });
  const leave = () => (shown.trim() ? done(shown.trim()) : giveUp());
  return (
    <Box component="label" sx={{ fontSize: 12, color: tone.soft, display: "block", my: 0.5 }}>
      {label}
      <SavedMark state={state} />
      <Box
        component="input"
        aria-label={about}
        value={shown}
        maxLength={120}
        onChange={(event) => type(event.target.value)}
        onBlur={leave}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        sx={{
          width: "100%",
          fontFamily: "inherit",
          color: tone.ink,
          fontSize: 13,
          border: `1px solid ${tone.line}`,
          px: 0.5,
          py: 0.4,
          bgcolor: "#fff",
        }}
      />
    </Box>
  );
}
