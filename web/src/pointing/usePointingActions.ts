import { useMemo } from "react";
import type { Action } from "../open/action";
import { usePointing } from "../open/pointing";
import { useOpen } from "../open/useStage";

/** Pointing at the stage without a mouse. */
export function usePointingActions(): readonly Action[] {
  const { stage } = useOpen();
  return useMemo<readonly Action[]>(
    () => [
      {
        group: "Window",
        name: "Point with the keys, or stop pointing",
        key: "shift+enter",
        run: () => {
          const { at, put } = usePointing.getState();
          const canvas = stage()?.canvas;
          if (at || !canvas) return put({ at: null });
          // Whoever comes from a button points from now on.
          if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
          put({ at: { x: canvas.clientWidth / 2, y: canvas.clientHeight / 2 } });
        },
      },
    ],
    [stage],
  );
}
