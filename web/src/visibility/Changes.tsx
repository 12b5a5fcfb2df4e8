import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useSeeing } from "../open/visibility/useSeeing";
import { useViewState } from "../open/visibility/viewState";
import { face, tone } from "../style/theme";

/** What was changed, the last first; a click goes back or forward to it. */
export function Changes() {
  const history = useViewState((s) => s.history);
  const goTo = useViewState((s) => s.goTo);
  const { undo, redo, everything } = useSeeing();
  const steps = history.steps.map((step, i) => ({ step, i })).reverse();
  return (
    <Box sx={{ borderTop: `1px solid ${tone.ink}`, mt: 0.5, pt: 1 }}>
      <Box sx={{ display: "flex", gap: 1, alignItems: "baseline" }}>
        <Box component="h3" sx={{ m: 0, flex: 1, fontFamily: face.head, fontSize: 13 }}>
          Changes
        </Box>
        <Button variant="text" disabled={history.at === 0} onClick={undo}>
          Undo
        </Button>
        <Button variant="text" disabled={history.at === history.steps.length - 1} onClick={redo}>
          Redo
        </Button>
        <Button variant="text" onClick={everything}>
          Show everything
        </Button>
      </Box>
      <Box sx={{ maxHeight: 150, overflow: "auto" }}>
        {steps.map(({ step, i }) => (
          <Box
            key={i}
            component="button"
            type="button"
            data-testid="change"
            aria-current={i === history.at ? "step" : undefined}
            onClick={() => goTo(i)}
            sx={{
              display: "block",
              width: "100%",
              textAlign: "left",
              border: 0,
              borderLeft: `3px solid ${i === history.at ? tone.here : "transparent"}`,
              bgcolor: "transparent",
              color: i > history.at ? tone.soft : tone.ink,
              fontFamily: face.text,
              fontSize: 13,
              py: 0.4,
              cursor: "pointer",
              "&:hover": { bgcolor: tone.film },
            }}
          >
            {step.name || (i === 0 ? "Start" : "...")}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
