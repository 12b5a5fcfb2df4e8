import { useMemo } from "react";
import type { Action } from "../open/action";
import { useHabits } from "../open/habits";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { roomAt } from "../open/plan/plan";
import { shownLevel, useShownLevel } from "../open/plan/storey";
import { useKeyPlan } from "../open/plan/useInstrument";
import { pickedNow } from "../open/selection";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { SCALES } from "./scales";
import { pinTool, regionTool } from "./tools";

const LEAN_DEG = 6;

/** What the panels offer as a choice, by name; each says what it is now. */
function panelActions(): Action[] {
  const { say } = useSession.getState();
  const toggles = [
    ["fitOnTurn", "Turning fits the selection, or only turns", "Turning fits", "Turning only rotates"],
    ["tumble", "Tumble freely or stay upright", "The view can tumble", "The view stays upright"],
    [
      "keepInside",
      "Stay inside rooms when zooming out, on or off",
      "Zooming out stays inside the room",
      "Zooming out can leave the room",
    ],
    ["instant", "Jump or glide", "The view jumps", "The view glides"],
    [
      "trueNorth",
      "Bearings from true north or building north",
      "Bearings are measured from true north",
      "Bearings are measured from building north",
    ],
  ] as const;
  return toggles.map(([habit, name, on, off]) => ({
    group: "Look",
    name,
    run: () => {
      const { set, [habit]: now } = useHabits.getState();
      set({ [habit]: !now });
      say(`${now ? off : on} now.`);
    },
  }));
}

/** Fits, lenses, square-on and level views, and how moving feels. */
export function useCameraActions(): readonly Action[] {
  const { federation, stage } = useOpen();
  const look = useCameraCommands();
  const { level } = useShownLevel();
  const plan = useKeyPlan(level);
  return useMemo<readonly Action[]>(() => {
    const { say } = useSession.getState();
    const tools = useTools.getState();
    const pose = () => stage()?.pose ?? null;
    const fitRoom = () => {
      const eye = pose()?.eye;
      const room = eye && plan && roomAt(plan, eye);
      if (room) void look.fitTo({ kind: "room", room: room.index });
      else say("The eye is not in a room. Stand in one first, or find a room by name.");
    };
    const fitStorey = () => {
      void look.fitTo({ kind: "storey", level: shownLevel(federation) });
    };
    const onFace = () => {
      const normal = stage()?.pickedNormal;
      if (normal) void look.squareToFace(normal);
      else say("Click a face first, then the view can turn square onto it.");
    };
    const fitPicked = () => {
      if (pickedNow().length) void look.fitPicked();
      else say("Nothing is selected. Click a component first.");
    };
    return [
      { group: "Fit", name: "Fit all", key: "e", run: () => void look.fitTo({ kind: "all" }) },
      {
        group: "Fit",
        name: "Fit visible components",
        key: "x",
        run: () => void look.fitTo({ kind: "visible" }),
      },
      { group: "Fit", name: "Fit selection", key: "enter", menu: "Fit", run: fitPicked },
      { group: "Fit", name: "Fit the storey", key: "o", run: fitStorey },
      { group: "Fit", name: "Fit the room the eye is in", key: "r", run: fitRoom },
      {
        group: "Fit",
        name: "Zoom to a region",
        key: "z",
        run: () => tools.take(regionTool),
      },
      { group: "Look", name: "Make the view level", key: "l", run: () => void look.level() },
      { group: "Look", name: "Pin the pivot to a point", key: "i", run: () => tools.take(pinTool(stage)) },
      {
        group: "Look",
        name: "Unpin the pivot",
        key: "shift+i",
        run: () => {
          stage()?.navigation.pin(null);
          tools.take(null);
        },
      },
      { group: "Look", name: "Lean to the left", key: ",", run: () => stage()?.navigation.roll(-LEAN_DEG) },
      { group: "Look", name: "Lean to the right", key: ".", run: () => stage()?.navigation.roll(LEAN_DEG) },
      {
        group: "Look",
        name: "Stand upright again",
        key: "shift+l",
        run: () => stage()?.navigation.upright(),
      },
      {
        group: "Look",
        name: "Lock or unlock the view",
        key: "q",
        run: () => tools.lock(!useTools.getState().locked),
      },
      { group: "Look", name: "Square onto the selected face", run: onFace },
      ...(plan?.axes ?? []).map<Action>((axis) => ({
        group: "Look",
        name: `Square onto grid line ${axis.tag}`,
        run: () => void look.squareToAxis(axis.tag, axis.ends),
      })),
      ...panelActions(),
      { group: "Look", name: "Set eye height", run: () => tools.showPanel("eye") },
      { group: "Look", name: "Limit the depth of view", run: () => tools.showPanel("eye") },
      { group: "Lens", name: "Set a lens or a true scale", run: () => tools.showPanel("lens") },
      ...SCALES.map<Action>((scale) => ({
        group: "Lens",
        name: `True scale 1:${scale}`,
        run: () => void look.scale(scale),
      })),
      { group: "Lens", name: "Perspective", key: "p", run: () => void look.projection("perspective") },
      { group: "Lens", name: "Parallel", key: "shift+p", run: () => void look.projection("parallel") },
      { group: "Lens", name: "Lens for inside, 60 degrees", run: () => void look.lens("60", "eye") },
      { group: "Lens", name: "Lens for outside, 30 degrees", run: () => void look.lens("30", "subject") },
    ];
  }, [federation, stage, look, plan]);
}
