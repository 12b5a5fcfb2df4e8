import Box from "@mui/material/Box";
import { useEffect, useMemo, useRef, useState } from "react";
import { OVER_STAGE } from "../open/looking/covered";
import { useOpen } from "../open/useStage";
import { tallies, together } from "../open/visibility/tallies";
import { useViewState } from "../open/visibility/viewState";
import { counted } from "../parts/words";
import { face, tone } from "../style/theme";
import { Changes } from "./Changes";
import { ReasonLine } from "./ReasonLine";

/** How much is not plainly shown, at the stage's edge; opened, the rules that are why. */
export function Reasons() {
  const lines = useViewState((s) => s.lines);
  const rules = useViewState((s) => s.rules);
  const { federation } = useOpen();
  const states = useViewState((s) => s.states);
  const tally = useMemo(() => together(tallies(federation, states).values()), [federation, states]);
  const cuts = useViewState((s) => s.cuts.filter((cut) => !cut.off).length);
  const steps = useViewState((s) => s.history.steps.length);
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!open) return;
    // Before anything else lets go of something.
    const close = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      setOpen(false);
      button.current?.blur();
    };
    window.addEventListener("keydown", close, true);
    return () => window.removeEventListener("keydown", close, true);
  }, [open]);
  if (!rules.length && steps < 2 && !cuts) return null;
  const words = tally.hidden || tally.faded ? `${tally.hidden} hidden · ${tally.faded} faded` : "all shown";
  return (
    <Box {...OVER_STAGE} sx={{ position: "absolute", right: 12, bottom: 12 }}>
      <Box
        component="button"
        type="button"
        ref={button}
        data-testid="reasons"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        sx={{
          border: `1px solid ${tone.ink}`,
          bgcolor: tone.paper,
          color: tone.ink,
          px: 1.25,
          py: 0.6,
          minHeight: 32,
          fontFamily: face.text,
          fontSize: 13,
          cursor: "pointer",
        }}
      >
        {words}
        {cuts > 0 && ` · ${counted(cuts, "cut")}`}
      </Box>
      {open && (
        <Box
          role="region"
          aria-label="Why it looks like this"
          sx={{
            position: "absolute",
            right: 0,
            bottom: 42,
            width: 400,
            maxWidth: "80vw",
            maxHeight: "52vh",
            overflow: "auto",
            bgcolor: tone.paper,
            border: `1px solid ${tone.ink}`,
            p: 1.5,
            zIndex: 3,
          }}
        >
          <Box component="h2" sx={{ m: 0, mb: 0.5, fontFamily: face.head, fontSize: 14 }}>
            Why it looks like this
          </Box>
          {lines.length === 0 && (
            <Box sx={{ color: tone.soft, fontSize: 13 }}>Nothing is hidden, faded or tinted.</Box>
          )}
          {lines.map((line, place) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: rules have no name but their place
            <ReasonLine key={place} line={line} place={place} />
          ))}
          <Changes />
        </Box>
      )}
    </Box>
  );
}
