import { useMemo } from "react";
import { spokenDrawing } from "../beside/drawing";
import { useDrawings } from "../beside/useDrawings";
import { useLook } from "../camera/useLook";
import { levelAt, roomAt } from "../keyplan/plan";
import { useDirections, useKeyPlan, useShownLevel, useTurns } from "../keyplan/useInstrument";
import { useHabits } from "../project/habits";
import { useHome } from "../project/home";
import { ALL_SHOWN, useSession } from "../project/session";
import { useOpen } from "../project/useStage";
import { looking } from "../stage/pose";
import { useTrailSteps } from "../trail/useTrailKeeper";
import { useWalk } from "../walk/useWalk";
import { useWalkState } from "../walk/walkState";
import { useTools } from "./tools";

/** Something that can be done, found by its name and, where it has one, by its key. */
export interface Action {
  name: string;
  group: "Walk" | "Fit" | "Trail" | "Look" | "Lens" | "Show" | "Beside" | "Window";
  key?: string;
  run: () => void;
}

const NUDGE_DEG = 6;

/** Every action of an open project. */
export function useActions(): readonly Action[] {
  const { federation, stage } = useOpen();
  const look = useLook();
  const home = useHome();
  const trail = useTrailSteps();
  const drawingTrail = useTrailSteps("drawing");
  const drawings = useDrawings();
  const directions = useDirections();
  const { level } = useShownLevel();
  const plan = useKeyPlan(level);
  const turns = useTurns(plan);
  const walk = useWalk();
  return useMemo(() => {
    const { say, see, undo, pick, open } = useSession.getState();
    const pose = () => stage()?.pose ?? null;
    const nudge = (bearing: number, tilt: number) => () => {
      const now = pose();
      if (!now) return;
      const { bearingDeg, tiltDeg } = looking(now);
      turns.drag(bearingDeg + bearing, Math.max(-90, Math.min(90, tiltDeg + tilt)), turns.about());
    };
    const fitRoom = () => {
      const eye = pose()?.eye;
      const room = eye && plan && roomAt(plan, eye);
      if (room) void look.fitTo({ kind: "room", room: room.index });
      else say("The eye is in no room; stand in one first, or find a room by typing its name.");
    };
    const fitStorey = () => {
      const eye = pose()?.eye;
      if (eye) void look.fitTo({ kind: "storey", level: levelAt(federation.levels, eye.z) });
    };
    const fitPicked = () => {
      if (useSession.getState().picked.length) void look.fitPicked();
      else say("Nothing is picked; click a component first.");
    };
    const tools = useTools.getState();
    const list: Action[] = [
      {
        group: "Walk",
        name: "Go on foot, or stop walking",
        key: "g",
        run: walk.toggleWalk,
      },
      {
        group: "Walk",
        name: "Fly, or stop flying",
        key: "f",
        run: walk.toggleFly,
      },
      { group: "Walk", name: "Jump to a point of a floor", key: "j", run: () => tools.take("jump") },
      { group: "Walk", name: "Step through a wall", key: "n", run: () => tools.take("through") },
      { group: "Walk", name: "A storey up, on foot", key: "pageup", run: () => walk.storey(1) },
      { group: "Walk", name: "A storey down, on foot", key: "pagedown", run: () => walk.storey(-1) },
      {
        group: "Walk",
        name: "See the body from behind, or through its eyes",
        key: "t",
        run: () => walk.showBehind(!useWalkState.getState().behind),
      },
      { group: "Walk", name: "Find a route", run: () => open("routes") },
      { group: "Fit", name: "Fit all", key: "e", run: () => void look.fitTo({ kind: "all" }) },
      {
        group: "Fit",
        name: "Fit what is visible",
        key: "x",
        run: () => void look.fitTo({ kind: "visible" }),
      },
      { group: "Fit", name: "Fit what is picked", key: "enter", run: fitPicked },
      { group: "Fit", name: "Fit the storey the eye is on", key: "o", run: fitStorey },
      { group: "Fit", name: "Fit the room the eye is in", key: "r", run: fitRoom },
      { group: "Fit", name: "Zoom to a region, again and again", key: "z", run: () => tools.take("region") },
      { group: "Trail", name: "Back to the last place", key: "[", run: trail.back },
      { group: "Trail", name: "Forward to the next place", key: "]", run: trail.forward },
      { group: "Trail", name: "As I opened it", run: trail.first },
      { group: "Trail", name: "Home", key: "home", run: () => void home.go(false) },
      { group: "Trail", name: "Home, the eye alone", key: "shift+home", run: () => void home.go(true) },
      { group: "Trail", name: "Make this view my own home", run: () => void home.setOwn() },
      { group: "Trail", name: "Make this view home for everybody", run: () => void home.setForAll() },
      { group: "Trail", name: "Keep this view as a viewpoint", key: "k", run: () => open("viewpoints") },
      { group: "Look", name: "Turn left", key: "left", run: nudge(-NUDGE_DEG, 0) },
      { group: "Look", name: "Turn right", key: "right", run: nudge(NUDGE_DEG, 0) },
      { group: "Look", name: "Look further up", key: "up", run: nudge(0, -NUDGE_DEG) },
      { group: "Look", name: "Look further down", key: "down", run: nudge(0, NUDGE_DEG) },
      { group: "Look", name: "Make the view level", key: "l", run: () => void look.level() },
      { group: "Look", name: "Pin the pivot to a point", key: "i", run: () => tools.take("pin") },
      {
        group: "Look",
        name: "Let the pinned pivot go",
        key: "shift+i",
        run: () => {
          stage()?.navigation.pin(null);
          tools.take(null);
        },
      },
      { group: "Look", name: "Lean to the left", key: ",", run: () => stage()?.navigation.roll(-NUDGE_DEG) },
      { group: "Look", name: "Lean to the right", key: ".", run: () => stage()?.navigation.roll(NUDGE_DEG) },
      {
        group: "Look",
        name: "Stand upright again",
        key: "shift+l",
        run: () => stage()?.navigation.upright(),
      },
      {
        group: "Look",
        name: "Lock the view, or open the lock",
        key: "q",
        run: () => tools.lock(!useTools.getState().locked),
      },
      ...directions.map<Action>((d) => ({
        group: "Look",
        name:
          Math.abs(d.tilt_deg) === 90
            ? d.tilt_deg > 0
              ? "Look at plan"
              : "Look straight up"
            : `Look from the ${d.name}`,
        run: () => void turns.toDirection(d),
      })),
      { group: "Lens", name: "Perspective", key: "p", run: () => void look.projection("perspective") },
      { group: "Lens", name: "Parallel", key: "shift+p", run: () => void look.projection("parallel") },
      { group: "Lens", name: "Lens for inside, 60 degrees", run: () => void look.lens("60", "eye") },
      { group: "Lens", name: "Lens for outside, 30 degrees", run: () => void look.lens("30", "subject") },
      { group: "Show", name: "Bring everything back", run: () => see(ALL_SHOWN) },
      { group: "Show", name: "Undo", key: "ctrl+z", run: undo },
      {
        group: "Show",
        name: "Put the tool away, let go of what is picked",
        key: "escape",
        run: () => (useTools.getState().tool ? tools.take(null) : pick([])),
      },
      { group: "Beside", name: "Plan beside the stage, or put it away", key: "b", run: drawings.toggle },
      ...[...drawings.plans, ...drawings.elevations].map<Action>((drawing) => ({
        group: "Beside",
        name: `${spokenDrawing(drawing)} beside the stage`,
        run: () => drawings.show(drawing),
      })),
      {
        group: "Beside",
        name: "Elevation beside the stage, the way it looks",
        run: drawings.asStageLooks,
      },
      { group: "Beside", name: "Drawing beside: back", key: "{", run: drawingTrail.back },
      { group: "Beside", name: "Drawing beside: forward", key: "}", run: drawingTrail.forward },
      { group: "Window", name: "Find", key: "/", run: () => tools.openFind() },
      { group: "Window", name: "Keys", key: "?", run: () => tools.showKeys(true) },
      {
        group: "Window",
        name: "Full screen",
        key: "f11",
        run: () =>
          void (document.fullscreenElement
            ? document.exitFullscreen()
            : document.documentElement.requestFullscreen()),
      },
      ...(["light", "grey", "dark"] as const).map<Action>((background) => ({
        group: "Window",
        name: `Background: ${background}`,
        run: () => useHabits.getState().set({ background }),
      })),
      {
        group: "Window",
        name: "Wheel button: pan, or turn",
        run: () => {
          const { wheelButton, set } = useHabits.getState();
          set({ wheelButton: wheelButton === "pan" ? "orbit" : "pan" });
          say(
            `The wheel button ${wheelButton === "pan" ? "turns" : "pans"} now; Shift with it does the other.`,
          );
        },
      },
      {
        group: "Window",
        name: "Wheel: mouse, or trackpad",
        run: () => {
          const { device, set } = useHabits.getState();
          set({ device: device === "mouse" ? "trackpad" : "mouse" });
          say(device === "mouse" ? "Two fingers pan and a pinch zooms now." : "The wheel zooms now.");
        },
      },
    ];
    return list;
  }, [federation, stage, look, home, trail, drawingTrail, drawings, directions, plan, turns, walk]);
}
