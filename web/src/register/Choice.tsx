import Box from "@mui/material/Box";
import { tone } from "../style/theme";

interface Named {
  value: string;
  name: string;
}

export interface Offered {
  label?: string;
  of: readonly Named[];
}

/** A list to choose from, some of it under headings. */
export function Choice(props: {
  label: string;
  value: string;
  /** What stands first and chooses nothing. */
  none?: string;
  offered: readonly Offered[];
  choose: (value: string) => void;
}) {
  const { label, value, none, offered, choose } = props;
  const option = (each: Named) => (
    <option key={each.value} value={each.value}>
      {each.name}
    </option>
  );
  return (
    <Box
      component="select"
      value={value}
      aria-label={label}
      onChange={(event) => choose(event.target.value)}
      sx={{
        font: "inherit",
        color: tone.ink,
        border: `1px solid ${tone.line}`,
        bgcolor: "#fff",
        py: 0.25,
        // A list is as wide as its longest name if it is let.
        width: "100%",
        minWidth: 0,
      }}
    >
      {none !== undefined && <option value="">{none}</option>}
      {offered.map(({ label: heading, of }) =>
        heading === undefined ? (
          of.map(option)
        ) : of.length ? (
          <optgroup key={heading} label={heading}>
            {of.map(option)}
          </optgroup>
        ) : null,
      )}
    </Box>
  );
}
