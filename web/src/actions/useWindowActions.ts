import { useMemo } from "react";
import type { Action } from "../open/action";
import { useHabits } from "../open/habits";
import { useSession } from "../open/session";
import { useTools } from "../open/tools";

/** The window, its keys, and what moves what. */
export function useWindowActions(): readonly Action[] {
  return useMemo<readonly Action[]>(() => {
    const { say } = useSession.getState();
    const tools = useTools.getState();
    return [
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
  }, []);
}
