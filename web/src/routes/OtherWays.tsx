import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useUnits } from "../open/units";
import { DeskHeading, DeskNote } from "../parts/desk";
import { face, tone } from "../style/theme";
import { spokenAvoided, spokenTime, useRouteState } from "./routeState";
import { useRoute } from "./useRoute";

/** The next best ways, with what each keeps away from; one of them can be shown in place of the quickest. */
export function OtherWays() {
  const { answer, others, chosen, set } = useRouteState();
  const { findOthers } = useRoute();
  const units = useUnits();
  const [busy, setBusy] = useState(false);
  if (!others)
    return (
      <Button
        variant="text"
        disabled={busy}
        onClick={async () => {
          setBusy(true);
          await findOthers();
          setBusy(false);
        }}
      >
        {busy ? "Finding other ways…" : "Other ways"}
      </Button>
    );
  const rows = [
    { way: answer, label: "The quickest" },
    ...others.map((other) => ({ way: other.answer, label: `Avoiding ${spokenAvoided(other.avoids)}` })),
  ];
  return (
    <Box data-testid="other-ways">
      <DeskHeading>Ways</DeskHeading>
      {!others.length && <DeskNote>There is no other route.</DeskNote>}
      {rows.map(({ way, label }, k) => {
        const on = (chosen ?? -1) === k - 1;
        return (
          <Box
            key={label}
            component="button"
            type="button"
            aria-pressed={on}
            onClick={() => set({ chosen: k ? k - 1 : null, away: false, outlined: [] })}
            sx={{
              display: "block",
              width: "100%",
              minHeight: 32,
              textAlign: "left",
              border: 0,
              borderLeft: `3px solid ${on ? tone.here : "transparent"}`,
              borderBottom: `1px solid ${tone.line}`,
              bgcolor: on ? tone.film : "transparent",
              p: 0,
              pl: 0.75,
              py: 0.4,
              cursor: "pointer",
              font: "inherit",
              color: "inherit",
            }}
          >
            <Box>{label}</Box>
            <Box sx={{ fontFamily: face.figure, fontSize: 12.5, color: tone.soft }}>
              {units.length(way?.length_m ?? 0, 2)} · {spokenTime(way?.time_s ?? 0)}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
