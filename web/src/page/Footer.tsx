import Box from "@mui/material/Box";
import { useSelection } from "../open/selection";
import { useStageNews } from "../open/useStage";
import { useWalkState } from "../open/walking/walkState";
import { tone } from "../style/theme";
import { Trail } from "../trail/Trail";
import { Readouts } from "./Readouts";

/** The Trail on the left; what to do next, and how the eye stands, on the right. */
export function Footer() {
  return (
    <Box
      component="footer"
      sx={{
        bgcolor: "#e8e4da",
        borderTop: `1px solid ${tone.line}`,
        display: "flex",
        px: 1.75,
        gap: 2,
        minWidth: 0,
        minHeight: 0,
      }}
    >
      <Trail />
      <Box
        sx={{
          flex: "0 0 auto",
          width: 404,
          // The figures are never cut; a parallel view's scale takes more room.
          minWidth: "min-content",
          borderLeft: `1px solid ${tone.line}`,
          pl: 1.75,
          py: 0.75,
          display: "flex",
          flexDirection: "column",
          justifyContent: "space-between",
        }}
      >
        <Prompt />
        <Readouts />
      </Box>
    </Box>
  );
}

const MOVING = {
  walk: "W S walk · A D sidestep · ← → turn",
  fly: "W A S D fly · Page Up and Page Down go up and down",
} as const;

function Prompt() {
  const picked = useSelection((s) => s.picked.length);
  const { pending, total, failed } = useStageNews();
  const mode = useWalkState((s) => s.mode);
  if (pending > 0) {
    return (
      <Box data-testid="prompt">
        Drawing the building: {total - pending} of {total} pieces
      </Box>
    );
  }
  if (failed.length) {
    return (
      <Box sx={{ color: tone.wrong }} data-testid="prompt">
        {failed.length} pieces of {[...new Set(failed)].join(", ")} could not be loaded. Reload the page to
        load them again.
      </Box>
    );
  }
  if (mode !== "orbit") {
    return (
      <Box data-testid="prompt" sx={{ fontSize: 12.5, lineHeight: 1.25 }}>
        {MOVING[mode]}{" "}
        <Box component="span" sx={{ color: tone.soft }}>
          Drag to look around. Wheel changes the speed. Shift is faster.
        </Box>
      </Box>
    );
  }
  return (
    <Box data-testid="prompt" sx={{ fontSize: 12.5, lineHeight: 1.25 }}>
      Drag orbits around the point under the cursor, right drag pans, wheel zooms.{" "}
      <Box component="span" sx={{ color: tone.soft }}>
        {picked ? "Esc clears the selection." : "Click selects a component; ? shows the keys."}
      </Box>
    </Box>
  );
}
