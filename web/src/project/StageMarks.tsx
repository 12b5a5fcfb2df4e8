import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type ReactNode, useEffect, useState } from "react";
import { type Tool, useTools } from "../actions/tools";
import type { Pose } from "../stage/pose";
import type { ViewKind } from "../stage/view";
import { face, tone } from "../theme";
import { announce } from "../trail/cause";
import { useWalkState } from "../walk/walkState";
import { find, useSession } from "./session";
import { useOpen, useStageNews } from "./useStage";

/** The region that is being drawn. */
export function RegionBox({ where }: { where: ViewKind }) {
  const region = useStageNews((s) => s.region);
  if (region?.where !== where) return null;
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

const SAME_M = 0.05;

/** A wall keeps the eye in the room, or the room is looked into through it. */
function KeptInside() {
  const { eye, stage } = useOpen();
  const keptAt = useStageNews((s) => s.keptAt);
  const [where, setWhere] = useState<"free" | "kept" | "behind">("free");
  useEffect(() => {
    const tell = (pose: Pose) => {
      const kept = keptAt !== null && pose.eye.distanceTo(keptAt) < SAME_M;
      setWhere(pose.throughM > 0 ? "behind" : kept ? "kept" : "free");
    };
    if (eye.last) tell(eye.last);
    return eye.listen(tell);
  }, [eye, keptAt]);
  if (where === "behind")
    return (
      <Mark
        text="You look into the room through the wall behind you."
        act="Back inside"
        onAct={() => {
          announce("back inside");
          stage()?.backInside();
        }}
      />
    );
  if (where !== "kept") return null;
  return (
    <Mark
      text="The wall behind keeps you inside; hold Alt to leave."
      act="Look in through it"
      onAct={() => {
        announce("through the wall behind");
        stage()?.lookThrough();
      }}
    />
  );
}

const POINTING: Partial<Record<Tool, string>> = {
  jump: "Click the floor where you want to stand.",
  through: "Click the wall that you want to be behind.",
  from: "Click the floor where the route begins.",
  to: "Click the floor where the route ends.",
  align: "Click a point of the model that is to be aligned; corners and edges catch it.",
};

/** What is unusual about the view now, each with the way out of it: a tool in hand, a lock, a limit. */
export function StageMarks() {
  const { tool, take, locked, lock } = useTools();
  const limit = useSession((s) => s.depthLimitM);
  const limitDepth = useSession((s) => s.limitDepth);
  const { stage } = useOpen();
  const walking = useWalkState((s) => s.mode !== "orbit");
  return (
    <Box
      sx={{
        position: "absolute",
        left: 12,
        top: walking ? 92 : 10,
        display: "grid",
        gap: 0.75,
        justifyItems: "start",
      }}
    >
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
      {tool && POINTING[tool] && <Mark text={POINTING[tool] ?? ""} act="Put away" onAct={() => take(null)} />}
      {locked && <Mark text="The view is locked." act="Open the lock" onAct={() => lock(false)} />}
      <KeptInside />
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

/** Names the component under the cursor, beside it. */
export function HoverLabel({ where }: { where: ViewKind }) {
  const { hovered, hoverAt } = useStageNews();
  const { federation } = useOpen();
  if (hovered < 0 || hoverAt?.where !== where) return null;
  const found = find(federation, hovered);
  if (!found) return null;
  const discipline = federation.disciplines[found.model.discipline[found.at] ?? 0];
  return (
    <Box
      sx={{
        position: "absolute",
        left: hoverAt.x + 16,
        top: hoverAt.y + 14,
        pointerEvents: "none",
        bgcolor: tone.ink,
        color: tone.paper,
        px: 1,
        py: 0.4,
        fontSize: 12.5,
        whiteSpace: "nowrap",
        borderRadius: "2px",
      }}
    >
      <Box component="span" sx={{ fontFamily: face.head, fontWeight: 600, mr: 0.8, color: "#fff" }}>
        {discipline?.code}
      </Box>
      {found.model.labels[found.at]}
    </Box>
  );
}
