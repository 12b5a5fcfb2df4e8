import { useMemo } from "react";
import type { Action } from "../open/action";
import { useTrailSteps } from "../open/trail/useTrailKeeper";

/** The strip stands up while one of its pictures has the focus. */
function standUp(): void {
  document.querySelector<HTMLElement>("nav[aria-label=Trail] [aria-current]")?.focus();
}

/** Going along the Trail. */
export function useTrailActions(): readonly Action[] {
  const trail = useTrailSteps();
  return useMemo<readonly Action[]>(() => {
    return [
      { group: "Trail", name: "Back to the last place", key: "[", run: trail.back },
      { group: "Trail", name: "Forward to the next place", key: "]", run: trail.forward },
      { group: "Trail", name: "Opening view", run: trail.first },
      { group: "Trail", name: "Pictures of the Trail", key: "v", run: standUp },
    ];
  }, [trail]);
}
