import Box from "@mui/material/Box";
import { useCallback, useEffect, useMemo, useRef } from "react";
import { Vector3 } from "three";
import { useTools } from "../actions/tools";
import { useLook } from "../camera/useLook";
import { useAligning } from "../desk/alignState";
import { useRouteState } from "../routes/routeState";
import { type Pose, toShape } from "../stage/pose";
import { Stage } from "../stage/stage";
import { keepPlace } from "../trail/useTrailKeeper";
import { useWalk } from "../walk/useWalk";
import { BACKGROUNDS, useHabits } from "./habits";
import { HoverLabel, RegionBox, StageMarks } from "./StageMarks";
import { resolve, useSession } from "./session";
import { useOpen, useStageNews } from "./useStage";

const PINNED = {
  corner: "a corner",
  middle: "the middle of an edge",
  crossing: "a grid crossing",
  face: "a point of the face",
} as const;

/** What is picked on the drawing and out of sight on the stage is brought into it. */
function useBringIn() {
  const { stage } = useOpen();
  const { fitTo } = useLook();
  const latest = useRef<(component: number) => void>(() => undefined);
  latest.current = (component) => {
    const view = stage();
    const box = view?.boxesOf([component]).get(component);
    if (!view || !box || view.main.shows(box.getCenter(new Vector3()))) return;
    void fitTo({ kind: "components", components: [component] });
  };
  return useCallback((component: number) => latest.current(component), []);
}

/** The canvas; the 3D view itself lives in `stage/` and knows nothing of React. */
export function StageView(props: {
  onReady: (stage: Stage | null) => void;
  /** The eye has come to rest somewhere. */
  onRest: (pose: Pose) => void;
}) {
  const { onReady, onRest } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const stageRef = useRef<Stage | null>(null);
  const { federation, eye, drawn } = useOpen();
  const visibility = useSession((s) => s.visibility);
  const picked = useSession((s) => s.picked);
  const bringIn = useBringIn();
  const walk = useWalk();
  const latestWalk = useRef(walk);
  latestWalk.current = walk;

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const stage = new Stage(element, {
      hover: (hovered, at, where) =>
        useStageNews.setState({ hovered, hoverAt: at && hovered >= 0 ? { ...at, where } : null }),
      pick: (component, add, where) => {
        const session = useSession.getState();
        if (component < 0) session.pick([]);
        else if (!add) session.pick([component]);
        else if (session.picked.includes(component))
          session.pick(session.picked.filter((c) => c !== component));
        else session.pick([...session.picked, component]);
        if (component >= 0) session.open("component");
        if (component >= 0 && where === "drawing") bringIn(component);
      },
      moved: (pose, where) => {
        const shown = where === "stage" ? element : stageRef.current?.drawing?.element;
        if (shown) shown.dataset.pose = JSON.stringify(toShape(pose));
        (where === "stage" ? eye : drawn).tell(pose);
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
      kept: (at) => useStageNews.setState({ keptAt: at }),
      moverLeft: () => latestWalk.current.orbit(),
      pointed: (at) => pointed.current(at),
      refused: () => useSession.getState().say("The view is locked; open the lock to move."),
      region: (box, where) => useStageNews.setState({ region: box && { ...box, where } }),
      pinned: (kind) => {
        useTools.getState().take(null);
        useSession.getState().say(`The pivot is pinned to ${PINNED[kind]}; Shift I lets it go.`);
      },
      rested: (pose, cause, where) => {
        if (!stageRef.current) return;
        keepPlace(stageRef.current, cause, where);
        if (where === "stage") onRest(pose);
      },
    });
    stageRef.current = stage;
    onReady(stage);
    return () => {
      onReady(null);
      stage.dispose();
      stageRef.current = null;
    };
  }, [eye, drawn, onReady, onRest, bringIn]);

  const pointed = useRef<(at: Vector3) => void>(() => undefined);
  pointed.current = (at) => {
    const { tool, take } = useTools.getState();
    const point_m = at.toArray();
    if (tool === "align") {
      const aligning = useAligning.getState();
      aligning.add(point_m);
      if (aligning.points.length < 1) return;
    }
    take(null);
    if (tool === "jump") void walk.land({ kind: "floor", at_m: point_m }, "jump");
    if (tool === "through") void walk.through(at);
    if (tool === "from") useRouteState.setState({ start: { point_m, label: "a point" }, answer: null });
    if (tool === "to") useRouteState.setState({ end: { point_m, label: "a point" }, answer: null });
  };

  const habits = useHabits();
  useEffect(() => {
    const { wheelButton, device, instant, tumble, keepInside } = habits;
    stageRef.current?.setHabits({ wheelButton, device, instant, tumble, keepInside });
    stageRef.current?.setBackground(BACKGROUNDS[habits.background]);
  }, [habits]);
  const locked = useTools((s) => s.locked);
  useEffect(() => {
    if (stageRef.current) stageRef.current.navigation.locked = locked;
  }, [locked]);
  const tool = useTools((s) => s.tool);
  useEffect(() => {
    const points = tool !== null && tool !== "region" && tool !== "pin";
    stageRef.current?.setTool(tool === "align" ? "corner" : points ? "point" : tool);
    if (tool === null && useAligning.getState().points.length < 2) useAligning.getState().stop();
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
      <RegionBox where="stage" />
      <StageMarks />
      <HoverLabel where="stage" />
    </Box>
  );
}
