import { useMemo } from "react";
import { Vector3 } from "three";
import type { Action } from "../open/action";
import { useAsked } from "../open/asked";
import { useHabits } from "../open/habits";
import { letteringNow } from "../open/lettering";
import { nextLettering } from "../open/letterSizes";
import { pickedNow } from "../open/selection";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";

/** Make letters one size larger or smaller. */
function resize(by: 1 | -1): void {
  const lettering = nextLettering(letteringNow(), by);
  useHabits.getState().set({ lettering });
  useSession.getState().say(`Letters are ${Math.round(Number(lettering) * 100)} % now.`);
}

/** The window, its keys, and what moves what. */
export function useWindowActions(): readonly Action[] {
  const { stage } = useOpen();
  return useMemo<readonly Action[]>(() => {
    const { say } = useSession.getState();
    const tools = useTools.getState();
    return [
      { group: "Window", name: "Find", key: "/", run: () => tools.openFind() },
      {
        group: "Select",
        name: "What can be done with the selection",
        key: "shift+f10",
        run: () => {
          const [component] = pickedNow();
          const view = stage();
          const box =
            component === undefined ? undefined : view?.building.boxesOf([component]).get(component);
          if (!view || !box) return say("Nothing is selected. Click a component first.");
          const middle = box.getCenter(new Vector3());
          const { left, top, width, height } = view.canvas.getBoundingClientRect();
          const { x, y } = view.main.pixelOf(middle);
          const within = (px: number, most: number) => Math.max(0, Math.min(most, px));
          const at = { x: left + within(x, width), y: top + within(y, height) };
          useAsked.setState({ asked: { at, point: view.main.hitAtPixel(x, y)?.point ?? middle } });
        },
      },
      { group: "Window", name: "Larger letters", run: () => resize(1) },
      { group: "Window", name: "Smaller letters", run: () => resize(-1) },
      { group: "Window", name: "Keys", key: "?", run: () => tools.showKeys(true) },
      {
        group: "Window",
        name: "The stage alone, or with all around it",
        key: "u",
        run: () => useSession.getState().setBare(!useSession.getState().bare),
      },
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
        name: "Wheel button: pan or orbit",
        run: () => {
          const { wheelButton, set } = useHabits.getState();
          set({ wheelButton: wheelButton === "pan" ? "orbit" : "pan" });
          say(`The wheel button now ${wheelButton === "pan" ? "orbits" : "pans"}. Hold Shift for the other.`);
        },
      },
      {
        group: "Window",
        name: "Wheel: mouse or trackpad",
        run: () => {
          const { device, set } = useHabits.getState();
          set({ device: device === "mouse" ? "trackpad" : "mouse" });
          say(device === "mouse" ? "Two fingers now pan, and a pinch zooms." : "The wheel now zooms.");
        },
      },
    ];
  }, [stage]);
}
