import Box from "@mui/material/Box";
import { useId } from "react";
import { tone } from "../style/theme";
import { FIELD } from "./field";
import { Offered } from "./Offered";
import { SavedMark } from "./SavedMark";
import { type KeptField, useKeptTyping } from "./useKeptTyping";

/** A line or some of text that is kept when it is left, also when it is emptied. */
export function KeptText(
  props: Omit<KeptField, "what"> & {
    label: string;
    of: string;
    rows?: number;
    /** A day or a time of day instead of words. */
    kind?: "date" | "time";
    /** What may be chosen in place of typing. */
    offered?: readonly string[];
  },
) {
  const { label, of, rows, offered, kind } = props;
  const list = useId();
  const name = label.split(",")[0] ?? label;
  const { shown, state, type, done } = useKeptTyping({ ...props, what: name.toLowerCase() });
  return (
    <Box component="label" sx={{ fontSize: 12, color: tone.soft, display: "block", my: 0.5 }}>
      {label}
      <SavedMark state={state} />
      <Box
        component={rows ? "textarea" : "input"}
        {...(rows ? { rows } : kind ? { type: kind } : offered?.length ? { list } : {})}
        aria-label={`${name} of ${of}`}
        value={shown}
        onChange={(event: React.ChangeEvent<HTMLInputElement>) => type(event.target.value)}
        onBlur={() => done(shown.trim())}
        onKeyDown={(event: React.KeyboardEvent<HTMLElement>) => {
          if (event.key === "Enter" && !rows) event.currentTarget.blur();
        }}
        sx={{ ...FIELD, ...(rows ? { resize: "vertical" } : {}) }}
      />
      {offered && <Offered id={list} of={offered} />}
    </Box>
  );
}
