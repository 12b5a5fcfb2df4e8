import Box from "@mui/material/Box";
import { useConnection } from "../api/connection";
import { LockBar } from "../measures/LockBar";
import { OVER_STAGE } from "../open/looking/covered";
import { usePointing } from "../open/pointing";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { useUnits } from "../open/units";
import { useViewState } from "../open/visibility/viewState";
import { useWalkState } from "../open/walking/walkState";
import { Mark } from "../parts/Mark";
import { KeptInside } from "./KeptInside";
import { Notice } from "./Notice";
import { Opened } from "./Opened";

/** So much of the stage's top the line takes that says that the server is away. */
const AWAY_LINE_PX = 36;

/** Along the top of the stage: what is in hand and what is unusual, and below it what just happened; never over one another. */
export function StageTop() {
  const walking = useWalkState((s) => s.mode !== "orbit");
  const away = useConnection((s) => s.away);
  const top = (walking ? 92 : 10) + (away ? AWAY_LINE_PX : 0);
  return (
    <Box
      sx={{
        position: "absolute",
        inset: `${top}px 12px auto`,
        display: "grid",
        gap: 0.75,
        pointerEvents: "none !important",
      }}
    >
      <StageMarks />
      <Notice />
    </Box>
  );
}

/** What is unusual about the view now, each with the way out of it: a tool in hand, a lock, a limit. */
function StageMarks() {
  const { tool, putAway, locked, lock } = useTools();
  const { bare, setBare } = useSession();
  const pointing = usePointing((s) => s.at !== null);
  const limit = useViewState((s) => s.depthM);
  const units = useUnits();
  return (
    <Box
      {...OVER_STAGE}
      sx={{ display: "grid", gap: 0.75, justifySelf: "start", justifyItems: "start", pointerEvents: "auto" }}
    >
      {tool && <Mark text={tool.prompt} act="Close" onAct={putAway} />}
      {pointing && (
        <Mark
          text="Arrows move the cross (Shift far, Alt fine). Enter clicks, Space presses and releases, + and − zoom."
          act="Stop (Esc)"
          onAct={() => usePointing.getState().put({ at: null })}
        />
      )}
      {bare && <Mark text="The stage stands alone." act="Show all (U)" onAct={() => setBare(false)} />}
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
