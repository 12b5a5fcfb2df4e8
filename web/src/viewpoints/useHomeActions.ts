import { useMemo } from "react";
import type { Action } from "../open/action";
import { beginKeeping } from "../open/views/shelfState";
import { useHome } from "./home";

/** Going home, saying where that is, and keeping views. */
export function useHomeActions(): readonly Action[] {
  const home = useHome();
  return useMemo<readonly Action[]>(() => {
    return [
      { group: "Trail", name: "Home", key: "home", run: () => void home.go(false) },
      { group: "Trail", name: "Home, the eye only", key: "shift+home", run: () => void home.go(true) },
      { group: "Trail", name: "Save as my home view", run: () => void home.setOwn() },
      { group: "Trail", name: "Delete my home view", run: () => void home.forgetOwn() },
      {
        group: "Trail",
        name: "Save as the project's home view",
        needs: "change folders, sets and routes",
        run: () => void home.setForAll(),
      },
      {
        group: "Trail",
        name: "Save this view as a viewpoint",
        key: "k",
        needs: "keep viewpoints",
        run: beginKeeping,
      },
    ];
  }, [home]);
}
