import Box from "@mui/material/Box";
import { type ChangeEvent, useId } from "react";
import { FIELD } from "./field";
import { Offered } from "./Offered";

/** A line, or several, that is being typed. */
export function Typing(props: {
  about: string;
  placeholder: string;
  value: string;
  type: (text: string) => void;
  rows?: number;
  /** What may be chosen in place of typing. */
  offered?: readonly string[];
}) {
  const { about, placeholder, value, type, rows, offered } = props;
  const list = useId();
  return (
    <>
      <Box
        component={rows ? "textarea" : "input"}
        {...(rows ? { rows } : offered?.length ? { list } : {})}
        aria-label={about}
        placeholder={placeholder}
        value={value}
        onChange={(event: ChangeEvent<HTMLInputElement>) => type(event.target.value)}
        sx={{ ...FIELD, ...(rows ? { resize: "vertical" } : {}) }}
      />
      {offered && <Offered id={list} of={offered} />}
    </>
  );
}
