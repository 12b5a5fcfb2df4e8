import { useMemo } from "react";
import type { Action } from "../open/action";
import { useSession } from "../open/session";
import { useHome } from "./home";

/** Going home, saying where that is, and keeping views. */
export function useHomeActions(): readonly Action[] {
  const home = useHome();
  return useMemo<readonly Action[]>(() => {
    const { open } = useSession.getState();
    return [
      { group: "Trail", name: "Home", key: "home", run: () => void home.go(false) },
      { group: "Trail", name: "Home, the eye alone", key: "shift+home", run: () => void home.go(true) },
      { group: "Trail", name: "Make this view my own home", run: () => void home.setOwn() },
      { group: "Trail", name: "Forget my own home", run: () => void home.forgetOwn() },
      { group: "Trail", name: "Make this view home for everybody", run: () => void home.setForAll() },
      { group: "Trail", name: "Keep this view as a viewpoint", key: "k", run: () => open("viewpoints") },
    ];
  }, [home]);
}
