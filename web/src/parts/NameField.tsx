import Box from "@mui/material/Box";
import { useEffect, useState } from "react";
import { tone } from "../theme";

/** A name of one's own, kept on Enter and when it is left; an empty one is not taken. */
export function NameField(props: {
  label: string;
  /** Whose name it is, for who hears the page. */
  about: string;
  value: string;
  keep: (name: string) => void;
}) {
  const { label, about, value, keep } = props;
  const [name, setName] = useState(value);
  useEffect(() => setName(value), [value]);
  const done = () => {
    const wanted = name.trim();
    if (wanted && wanted !== value) keep(wanted);
    else setName(value);
  };
  return (
    <Box component="label" sx={{ fontSize: 12, color: tone.soft, display: "block", my: 0.5 }}>
      {label}
      <Box
        component="input"
        aria-label={about}
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.target.value)}
        onBlur={done}
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
