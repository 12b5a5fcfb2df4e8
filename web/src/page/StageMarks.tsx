import Box from "@mui/material/Box";
import { LockBar } from "../measures/LockBar";
import { OVER_STAGE } from "../open/looking/covered";
import { useTools } from "../open/tools";
import { useUnits } from "../open/units";
import { useViewState } from "../open/visibility/viewState";
import { useWalkState } from "../open/walking/walkState";
import { Mark } from "../parts/Mark";
import { KeptInside } from "./KeptInside";
import { Opened } from "./Opened";

/** What is unusual about the view now, each with the way out of it: a tool in hand, a lock, a limit. */
export function StageMarks() {
  const { tool, take, locked, lock } = useTools();
  const limit = useViewState((s) => s.depthM);
  const units = useUnits();
  const walking = useWalkState((s) => s.mode !== "orbit");
  return (
    <Box
      {...OVER_STAGE}
      sx={{
        position: "absolute",
        left: 12,
        top: walking ? 92 : 10,
        display: "grid",
        gap: 0.75,
        justifyItems: "start",
      }}
    >
      {tool && <Mark text={tool.prompt} act="Close" onAct={() => take(null)} />}
      <LockBar />
      {locked && <Mark text="The view is locked." act="Unlock" onAct={() => lock(false)} />}
      <KeptInside />
      <Opened />
      {limit !== null && (
        <Mark
          text={`View limited to ${units.length(limit, 2)} beyond the target.`}
          act="Remove limit"
          onAct={() => useViewState.getState().change({ depthM: null }, "removed the depth limit")}
        />
      )}
    </Box>
  );
}
