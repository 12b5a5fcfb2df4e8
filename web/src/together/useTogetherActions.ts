import { useMemo } from "react";
import type { Action } from "../open/action";
import { followOrBack, present } from "../open/together/togetherState";
import { useTools } from "../open/tools";

/** Following and presenting, by name. */
export function useTogetherActions(): readonly Action[] {
  return useMemo<readonly Action[]>(
    () => [
      {
        group: "Together",
        name: "Follow the presenter, or return to them",
        key: "shift+f",
        run: followOrBack,
      },
      { group: "Together", name: "Present to the others", needs: "present", run: () => present(true) },
      { group: "Together", name: "Stop presenting", run: () => present(false) },
      { group: "Together", name: "Who is here", run: () => useTools.getState().showPanel("people") },
    ],
    [],
  );
}
