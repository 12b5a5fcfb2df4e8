import Box from "@mui/material/Box";
import type { ChangeEvent } from "react";
import { FIELD } from "./field";

/** A line, or several, that is being typed. */
export function Typing(props: {
  about: string;
  placeholder: string;
  value: string;
  type: (text: string) => void;
  rows?: number;
}) {
  const { about, placeholder, value, type, rows } = props;
  return (
    <Box
      component={rows ? "textarea" : "input"}
      {...(rows ? { rows } : {})}
      aria-label={about}
      placeholder={placeholder}
      value={value}
      onChange={(event: ChangeEvent<HTMLInputElement>) => type(event.target.value)}
      sx={{ ...FIELD, ...(rows ? { resize: "vertical" } : {}) }}
    />
  );
}
