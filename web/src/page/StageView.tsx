import Box from "@mui/material/Box";
import { useCallback, useEffect, useRef } from "react";
import { Vector3 } from "three";
import { WordsOver } from "../markups/WordsOver";
import { useAsked } from "../open/asked";
import { BACKGROUNDS, useHabits } from "../open/habits";
import { useLetteringShare } from "../open/lettering";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { LOCKED, useTools } from "../open/tools";
import { keepPlace } from "../open/trail/useTrailKeeper";
import { useFinish } from "../open/useFinish";
import { useOpen, useStageNews } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { useWalk } from "../open/walking/useWalk";
import { useWalkState } from "../open/walking/walkState";
import { HoverLabel, RegionBox } from "../parts/StageSigns";
import { type Pose, toShape } from "../stage/pose";
import { Stage } from "../stage/stage";
import { useOrigin } from "./useOrigin";

/** What is picked on the drawing and out of sight on the stage is brought into it. */
function useBringIn() {
  const { stage } = useOpen();
  const { fitTo } = useCameraCommands();
  const latest = useRef<(component: number) => void>(() => undefined);
  latest.current = (component) => {
    const view = stage();
    const box = view?.building.boxesOf([component]).get(component);
    if (!view || !box || view.main.shows(box.getCenter(new Vector3()))) return;
    void fitTo({ kind: "components", components: [component] });
  };
  return useCallback((component: number) => latest.current(component), []);
}

/** A double click goes there: on foot to that place, else near the component. */
function useEnter() {
  const { fitTo } = useCameraCommands();
  const walk = useWalk();
  const latest = useRef<(component: number, point: Vector3) => void>(() => undefined);
  latest.current = (component, point) => {
    if (useWalkState.getState().mode === "walk") void walk.jump(point);
    else void fitTo({ kind: "components", components: [component] });
  };
  return useCallback((component: number, point: Vector3) => latest.current(component, point), []);
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
  const states = useViewState((s) => s.states);
  const tints = useViewState((s) => s.tints);
  const depthM = useViewState((s) => s.depthM);
  const style = useViewState((s) => s.style);
  const picked = useSelection((s) => s.picked);
  const bringIn = useBringIn();
  const enter = useEnter();
  useFinish();
  const walk = useWalk();
  const latestWalk = useRef(walk);
  latestWalk.current = walk;
  const latestFederation = useRef(federation);
  latestFederation.current = federation;

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const stage = new Stage(element, {
      hover: (hovered, at, where, caught) =>
        useStageNews.setState({ hovered, caught, hoverAt: at && hovered >= 0 ? { ...at, where } : null }),
      pick: (component, add, where) => {
        const { picked: now, pick } = useSelection.getState();
        if (component < 0) pick([]);
        else if (!add) pick([component]);
        else pick(now.includes(component) ? now.filter((c) => c !== component) : [...now, component]);
        if (component >= 0) useSession.getState().turnTo("component");
        if (component >= 0 && where !== "stage") bringIn(component);
      },
      asked: ({ component, point }, { x, y }, where) => {
        const view = where === "stage" ? element : stageRef.current?.drawings[where]?.element;
        if (!view) return;
        const { picked: now, pick } = useSelection.getState();
        if (!now.includes(component)) pick([component]);
        useSession.getState().turnTo("component");
        const { left, top } = view.getBoundingClientRect();
        useAsked.setState({ asked: { at: { x: left + x, y: top + y }, point: point.clone() } });
      },
      entered: ({ component, point }) => enter(component, point),
      moved: (pose, where) => {
        const shown = where === "stage" ? element : stageRef.current?.drawings[where]?.element;
        if (shown) shown.dataset.pose = JSON.stringify(toShape(pose));
        (where === "stage" ? eye : drawn[where]).tell(pose);
      },
      streaming: (pending, total, failed) => {
        element.dataset.pending = String(pending);
        element.dataset.total = String(total);
        useStageNews.setState({ pending, total, failed: [...failed] });
      },
      stopped: () => useSession.getState().say("Stopped 5 cm before the surface. Hold Alt to go through."),
      kept: (at) => useStageNews.setState({ keptAt: at }),
      moverLeft: () => latestWalk.current.orbit(),
      refused: () => useSession.getState().say(LOCKED),
      rested: (pose, cause, where) => {
        if (!stageRef.current) return;
        keepPlace(stageRef.current, latestFederation.current, cause, where);
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
  }, [eye, drawn, onReady, onRest, bringIn, enter]);

  const habits = useHabits();
  useEffect(() => {
    const { wheelButton, device, instant, tumble, keepInside } = habits;
    stageRef.current?.setHabits({ wheelButton, device, instant, tumble, keepInside });
    stageRef.current?.setBackground(BACKGROUNDS[habits.background]);
    stageRef.current?.setInFull(habits.inFull);
    stageRef.current?.setHighlights(habits.pickColour, habits.hoverColour);
  }, [habits]);
  const lettering = useLetteringShare();
  useEffect(() => stageRef.current?.setLetters(lettering), [lettering]);
  const locked = useTools((s) => s.locked);
  useEffect(() => {
    if (stageRef.current) stageRef.current.navigation.locked = locked;
  }, [locked]);
  const tool = useTools((s) => s.tool);
  useEffect(() => {
    stageRef.current?.setTool(tool);
  }, [tool]);
  const rebase = useRef(useOrigin());
  useEffect(() => {
    const stage = stageRef.current;
    if (!stage) return;
    stage.building.setFederation(federation);
    rebase.current(stage, federation, () => latestWalk.current.orbit());
  }, [federation]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new federation begins with an empty table
  useEffect(() => stageRef.current?.building.setVisible(states), [states, federation]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: likewise
  useEffect(() => stageRef.current?.building.setTints(tints), [tints, federation]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: likewise
  useEffect(() => stageRef.current?.building.setPicked(picked), [picked, federation]);
  useEffect(() => stageRef.current?.setDepthLimit(depthM), [depthM]);
  useEffect(() => stageRef.current?.setStyle(style), [style]);

  return (
    <Box sx={{ position: "relative", minWidth: 0, minHeight: 0, overflow: "hidden" }}>
      <canvas
        ref={canvas}
        tabIndex={0}
        className="stage"
        aria-label="The building; drag to turn, right drag to pan, wheel to zoom"
        style={{
          display: "block",
          width: "100%",
          height: "100%",
          touchAction: "none",
          cursor: tool ? "crosshair" : "default",
        }}
      />
      <RegionBox where="stage" />
      <WordsOver />
      <HoverLabel where="stage" />
    </Box>
  );
}
