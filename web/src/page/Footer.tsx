import Box from "@mui/material/Box";
import { useSelection } from "../open/selection";
import { useTools } from "../open/tools";
import { useStageNews } from "../open/useStage";
import { useWalkState } from "../open/walking/walkState";
import { STRIP, tone } from "../style/theme";
import { Trail } from "../trail/Trail";
import { promptOf } from "./prompt";
import { Readouts } from "./Readouts";

/** The Trail on the left; what the mouse does now, and how the eye stands, on the right. */
export function Footer() {
  return (
    <Box
      component="footer"
      sx={{
        position: "relative",
        containerType: "inline-size",
        bgcolor: STRIP,
        borderTop: `1px solid ${tone.line}`,
        display: "flex",
        pl: 1.25,
        pr: 1,
        gap: 1.25,
        minWidth: 0,
        minHeight: 0,
      }}
    >
      <Trail />
      <Prompt />
      <Readouts />
    </Box>
  );
}

function usePrompt(): string {
  const picked = useSelection((s) => s.picked.length > 0);
  const { pending, total } = useStageNews();
  const mode = useWalkState((s) => s.mode);
  const tool = useTools((s) => s.tool !== null);
  const locked = useTools((s) => s.locked);
  if (pending > 0) return `Drawing the building: ${total - pending} of ${total} pieces`;
  return promptOf({ mode, tool, locked, picked });
}

/** What the mouse does now; on a narrow window there is no room for it. */
function Prompt() {
  const text = usePrompt();
  return (
    <Box
      data-testid="prompt"
      sx={{
        flex: "0 1 236px",
        minWidth: 150,
        alignSelf: "center",
        fontSize: 12.5,
        lineHeight: 1.2,
        maxHeight: 32,
        overflow: "hidden",
        color: tone.soft,
        "@container (max-width: 1000px)": { display: "none" },
      }}
    >
      {text}
    </Box>
  );
}
