import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { useTools } from "../actions/tools";
import { tone } from "../theme";
import { useSession } from "./session";
import { useOpen, useStageNews } from "./useStage";

/** The region that is being drawn. */
export function RegionBox() {
  const region = useStageNews((s) => s.region);
  if (!region) return null;
  return (
    <Box
      data-testid="region"
      sx={{
        position: "absolute",
        left: region.x,
        top: region.y,
        width: region.width,
        height: region.height,
        border: `1.5px solid ${tone.here}`,
        bgcolor: "rgba(14,124,134,.1)",
        pointerEvents: "none",
      }}
    />
  );
}

/** What is unusual about the view now, each with the way out of it: a tool in hand, a lock, a limit. */
export function StageMarks() {
  const { tool, take, locked, lock } = useTools();
  const limit = useSession((s) => s.depthLimitM);
  const limitDepth = useSession((s) => s.limitDepth);
  const { stage } = useOpen();
  return (
    <Box sx={{ position: "absolute", left: 12, top: 10, display: "grid", gap: 0.75, justifyItems: "start" }}>
      {tool === "region" && (
        <Mark
          text="Draw a box around what you want to see; again and again."
          act="Put away"
          onAct={() => take(null)}
        />
      )}
      {tool === "pin" && (
        <Mark
          text="Click a corner, an edge or a grid crossing to turn about."
          act="Put away"
          onAct={() => take(null)}
        />
      )}
      {locked && <Mark text="The view is locked." act="Open the lock" onAct={() => lock(false)} />}
      {limit !== null && (
        <Mark
          text={`Seen to ${limit} m beyond the target.`}
          act="See everything"
          onAct={() => {
            limitDepth(null);
            stage()?.setDepthLimit(null);
          }}
        />
      )}
    </Box>
  );
}

function Mark(props: { text: ReactNode; act: string; onAct: () => void }) {
  return (
    <Box
      data-testid="stage-mark"
      sx={{
        bgcolor: tone.paper,
        border: `1px solid ${tone.here}`,
        borderLeft: `4px solid ${tone.here}`,
        px: 1,
        py: 0.4,
        fontSize: 13,
        display: "flex",
        gap: 1,
        alignItems: "center",
      }}
    >
      {props.text}
      <Button variant="text" onClick={props.onAct} sx={{ color: tone.here }}>
        {props.act}
      </Button>
    </Box>
  );
}
