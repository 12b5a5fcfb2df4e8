import Box from "@mui/material/Box";
import { useEffect, useMemo, useRef } from "react";
import { useTools } from "../actions/tools";
import { type Pose, toShape } from "../stage/pose";
import { Stage } from "../stage/stage";
import { face, tone } from "../theme";
import { keepPlace } from "../trail/useTrailKeeper";
import { BACKGROUNDS, useHabits } from "./habits";
import { RegionBox, StageMarks } from "./StageMarks";
import { find, resolve, useSession } from "./session";
import { useOpen, useStageNews } from "./useStage";

const PINNED = {
  corner: "a corner",
  middle: "the middle of an edge",
  crossing: "a grid crossing",
  face: "a point of the face",
} as const;

/** The canvas; the 3D view itself lives in `stage/` and knows nothing of React. */
export function StageView(props: {
  onReady: (stage: Stage | null) => void;
  /** The eye has come to rest somewhere. */
  onRest: (pose: Pose) => void;
}) {
  const { onReady, onRest } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const stageRef = useRef<Stage | null>(null);
  const { federation, eye } = useOpen();
  const visibility = useSession((s) => s.visibility);
  const picked = useSession((s) => s.picked);

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const stage = new Stage(element, {
      hover: (hovered, hoverAt) => useStageNews.setState({ hovered, hoverAt: hovered >= 0 ? hoverAt : null }),
      pick: (component, add) => {
        const session = useSession.getState();
        if (component < 0) session.pick([]);
        else if (!add) session.pick([component]);
        else if (session.picked.includes(component))
          session.pick(session.picked.filter((c) => c !== component));
        else session.pick([...session.picked, component]);
        if (component >= 0) session.open("component");
      },
      moved: (pose) => {
        element.dataset.pose = JSON.stringify(toShape(pose));
        eye.tell(pose);
      },
      streaming: (pending, total, failed) => {
        element.dataset.pending = String(pending);
        element.dataset.total = String(total);
        useStageNews.setState({ pending, total, failed: [...failed] });
      },
      stopped: () =>
        useSession
          .getState()
          .say("Stopped 5 cm before the surface under the cursor; hold Alt to go through."),
      refused: () => useSession.getState().say("The view is locked; open the lock to move."),
      region: (region) => useStageNews.setState({ region }),
      pinned: (kind) => {
        useTools.getState().take(null);
        useSession.getState().say(`The pivot is pinned to ${PINNED[kind]}; Shift I lets it go.`);
      },
      rested: (pose, cause) => {
        if (!stageRef.current) return;
        keepPlace(stageRef.current, cause);
        onRest(pose);
      },
    });
    stageRef.current = stage;
    onReady(stage);
    return () => {
      onReady(null);
      stage.dispose();
      stageRef.current = null;
    };
  }, [eye, onReady, onRest]);

  const habits = useHabits();
  useEffect(() => {
    const { wheelButton, device, instant, tumble } = habits;
    if (stageRef.current) stageRef.current.navigation.habits = { wheelButton, device, instant, tumble };
    stageRef.current?.setBackground(BACKGROUNDS[habits.background]);
  }, [habits]);
  const locked = useTools((s) => s.locked);
  useEffect(() => {
    if (stageRef.current) stageRef.current.navigation.locked = locked;
  }, [locked]);
  const tool = useTools((s) => s.tool);
  useEffect(() => {
    if (!stageRef.current) return;
    stageRef.current.navigation.drawsRegions = tool === "region";
    stageRef.current.pinning = tool === "pin";
  }, [tool]);
  useEffect(() => stageRef.current?.setFederation(federation), [federation]);
  const states = useMemo(() => resolve(federation, visibility), [federation, visibility]);
  useEffect(() => stageRef.current?.setVisible(states), [states]);
  useEffect(() => {
    stageRef.current?.setPicked(picked);
  }, [picked]);

  return (
    <Box sx={{ position: "relative", minWidth: 0, minHeight: 0, overflow: "hidden" }}>
      <canvas
        ref={canvas}
        aria-label="The building; drag to turn, right drag to pan, wheel to zoom"
        style={{
          display: "block",
          width: "100%",
          height: "100%",
          touchAction: "none",
          outline: "none",
          cursor: tool ? "crosshair" : "default",
        }}
      />
      <RegionBox />
      <StageMarks />
      <HoverLabel />
    </Box>
  );
}

/** Names the component under the cursor, beside it. */
function HoverLabel() {
  const { hovered, hoverAt } = useStageNews();
  const { federation } = useOpen();
  if (hovered < 0 || !hoverAt) return null;
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
