import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";
import { useSession } from "../open/session";
import { useUnits } from "../open/units";

/** One length to type, in any unit; kept on Enter and when it is left, and said where it is none. */
export function LengthInput(props: {
  /** What it is, for who hears the page. */
  label: string;
  /** Null for none, which stands as an empty field. */
  value: number | null;
  /** Called with null where the field was emptied and may be. */
  keep: (metres: number | null) => void;
  least?: number;
  most?: number;
  placeholder?: string;
}) {
  const { label, value, keep, least = Number.NEGATIVE_INFINITY, most = 1e6, placeholder } = props;
  const units = useUnits();
  const say = useSession((s) => s.say);
  const [typed, setTyped] = useState<string | null>(null);
  const stands = value === null ? "" : units.typed(value);
  const done = () => {
    setTyped(null);
    if (typed === null || typed === stands) return;
    if (typed.trim() === "" && placeholder !== undefined) return keep(null);
    const metres = units.parse(typed);
    if (metres === null) say(units.wrong([typed]));
    else if (metres < least || metres > most)
      say(
        Number.isFinite(least)
          ? `${label} is between ${units.length(least, 2)} and ${units.length(most, 0)}. Type one such as ${units.typed(1.6)}.`
          : `${label} is at most ${units.length(most, 0)}. Type one such as ${units.typed(1.6)}.`,
      );
    else keep(metres);
  };
  return (
    <OutlinedInput
      size="small"
      value={typed ?? stands}
      placeholder={placeholder}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          event.preventDefault();
          done();
        }
        if (event.key === "Escape") setTyped(null);
      }}
      inputProps={{ "aria-label": `${label}, ${units.sign}` }}
      sx={{ width: 104 }}
    />
  );
}
