import Box from "@mui/material/Box";
import type { Shapes } from "../api/client";
import { find, numberOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { figure } from "../open/selections/properties";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { face, tone } from "../style/theme";
import type { Changes, Kind } from "./differences";

type Row = Changes[Kind][number];

/** What is said of a change: how far something went, or what is said of it now in place of what was. */
function useSaid(): (row: Row) => string {
  const units = useUnits();
  const value = (of: Shapes["FieldChange"]["old"]) =>
    typeof of === "object" && of !== null
      ? figure({ name: "", value: of.value, unit: of.unit, number: true }, units)
      : figure({ name: "", value: of, unit: "", number: typeof of === "number" }, units);
  return (row) => {
    if ("by_m" in row) {
      const turn = row.turned_deg > 0.05 ? `, turned by ${row.turned_deg.toFixed(1)}°` : "";
      return `by ${units.length(Math.hypot(...row.by_m))}${turn}`;
    }
    if ("fields" in row)
      return row.fields
        .map(({ name, old, new: now }) => `${name.split(".").at(-1)}: ${value(old)} → ${value(now)}`)
        .join("; ");
    return "";
  };
}

/** A component that differs, and how: a click picks it, or looks at where it was. */
export function DifferenceRow(props: { row: Row; kind: Kind; lookAtGone: (globalId: string) => void }) {
  const { row, kind, lookAtGone } = props;
  const { federation } = useOpen();
  const pick = useSelection((s) => s.pick);
  const said = useSaid()(row);
  const number = numberOf(federation, row.ref.model, row.ref.global_id);
  const gone = kind === "removed";
  const there = gone || find(federation, number) !== null;
  return (
    <Box
      component="button"
      type="button"
      disabled={!there}
      data-testid={`differs-${kind}`}
      title={gone ? "Look at its old place" : there ? "Select" : "No longer in the building"}
      onClick={() => (gone ? lookAtGone(row.ref.global_id) : pick([number]))}
      sx={{
        border: 0,
        bgcolor: "transparent",
        color: tone.ink,
        font: "inherit",
        fontSize: 13,
        width: "100%",
        p: 0,
        py: 0.2,
        textAlign: "left",
        cursor: there ? "pointer" : "default",
        "&:hover": { bgcolor: tone.film },
      }}
    >
      <Box component="span" sx={{ textDecoration: gone ? "line-through" : "none" }}>
        {row.label}
      </Box>
      {said && (
        <Box
          component="span"
          sx={{ color: tone.soft, fontFamily: face.text, ml: 0.75, overflowWrap: "anywhere" }}
        >
          {said}
        </Box>
      )}
    </Box>
  );
}
