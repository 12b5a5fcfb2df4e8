import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ATTRIBUTES } from "../api/constants";
import { commonQuery, useComponent } from "../api/queries";
import { numberingOf } from "../open/numbering";
import { plainName } from "../open/plainName";
import { useSelection } from "../open/selection";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskNote } from "../parts/desk";
import { tone } from "../style/theme";
import { sideBySide } from "./asText";

const MANY: Readonly<Record<string, string>> = Object.fromEntries(
  ATTRIBUTES.map(({ what, plural }) => [what, plural]),
);

/** How many are picked, and what they have in common. */
export function InCommon() {
  const { federation, projectId } = useOpen();
  const picked = useSelection((s) => s.picked);
  const pick = useSelection((s) => s.pick);
  const { of } = numberingOf(federation).these(picked);
  const { data, error } = useQuery(commonQuery(projectId, federation.version, of));
  const shared = data?.filter(({ value }) => value) ?? [];
  const apart = data?.filter(({ value, values }) => value === null && values > 1) ?? [];
  return (
    <Box data-testid="in-common" sx={{ mb: 1.5 }}>
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline" }}>
        <Box component="h2" sx={{ m: 0, fontSize: 22, fontWeight: 600, color: tone.pickInk }}>
          {picked.length} selected
        </Box>
        <Button variant="text" onClick={() => pick([])}>
          Clear selection
        </Button>
      </Box>
      {error && <DeskNote>{error.message}</DeskNote>}
      {shared.length > 0 && (
        <Box sx={{ fontSize: 13.5, mt: 0.5 }}>
          In common{" "}
          {shared.map(({ what, value }, k) => (
            <span key={what}>
              {k > 0 && ", "}
              <Box component="span" sx={{ color: tone.soft }}>
                {what}
              </Box>{" "}
              <b>{value}</b>
            </span>
          ))}
          .
        </Box>
      )}
      {apart.length > 0 && (
        <Box sx={{ fontSize: 13, color: tone.soft, mt: 0.25 }}>
          Of {apart.map(({ what, values }) => `${values} ${MANY[what] ?? what}`).join(", ")}.
        </Box>
      )}
    </Box>
  );
}

/** Two components side by side, what differs marked. */
export function SideBySide({ ids }: { ids: readonly [string, string][] }) {
  const [left, right] = ids;
  const one = useComponent(left?.[0] ?? "", left?.[1] ?? "");
  const other = useComponent(right?.[0] ?? "", right?.[1] ?? "");
  const units = useUnits();
  const [all, setAll] = useState(true);
  if (!one.data || !other.data)
    return <DeskNote>{one.error?.message ?? other.error?.message ?? "Loading…"}</DeskNote>;
  const rows = sideBySide(one.data, other.data, units);
  const differing = rows.filter((row) => row.differs).length;
  const shown = all ? rows : rows.filter((row) => row.differs);
  return (
    <Box data-testid="side-by-side">
      <Box sx={{ display: "flex", justifyContent: "space-between", fontSize: 13, mb: 0.5 }}>
        {differing ? `${differing} of ${rows.length} values differ` : "No differences"}
        {differing > 0 && (
          <Button variant="text" onClick={() => setAll(!all)}>
            {all ? "Differences only" : "All of it"}
          </Button>
        )}
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", fontSize: 13, columnGap: 1 }}>
        <Box sx={{ fontWeight: 600 }}>{one.data.tag || one.data.name}</Box>
        <Box sx={{ fontWeight: 600 }}>{other.data.tag || other.data.name}</Box>
        {shown.map((row) => (
          <Box
            key={`${row.group} ${row.name}`}
            data-differs={row.differs || undefined}
            sx={{
              gridColumn: "1 / 3",
              display: "grid",
              gridTemplateColumns: "subgrid",
              borderTop: `1px solid ${tone.line}`,
              borderLeft: row.differs ? `3px solid ${tone.pick}` : "3px solid transparent",
              pl: 0.75,
              py: 0.25,
            }}
          >
            <Box sx={{ gridColumn: "1 / 3", fontSize: 11.5, color: tone.soft, overflowWrap: "anywhere" }}>
              {plainName(row.name)}
              {row.group && ` · ${plainName(row.group)}`}
            </Box>
            {[row.one, row.other].map((value, k) => (
              <Box
                // biome-ignore lint/suspicious/noArrayIndexKey: two sides
                key={k}
                sx={{ overflowWrap: "anywhere", fontWeight: row.differs ? 600 : 400 }}
              >
                {value || "–"}
              </Box>
            ))}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
