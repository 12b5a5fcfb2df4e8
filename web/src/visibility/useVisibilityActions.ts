import { useMemo } from "react";
import type { Action } from "../open/action";
import { useSelection } from "../open/selection";
import { useTools } from "../open/tools";
import { materialColours, tradeColours } from "../open/visibility/tints";
import { useSeeing } from "../open/visibility/useSeeing";
import { STYLES, setStyle } from "./styles";

/** Hiding, isolating, fading, bringing back, and undoing it. */
export function useVisibilityActions(): readonly Action[] {
  const seeing = useSeeing();
  return useMemo<readonly Action[]>(() => {
    const { pick } = useSelection.getState();
    const tools = useTools.getState();
    return [
      { group: "Show", name: "Hide selection", key: "c", menu: "Hide", run: () => seeing.hide() },
      { group: "Show", name: "Isolate selection", key: "y", menu: "Isolate", run: () => seeing.only() },
      {
        group: "Show",
        name: "Fade all but the selection",
        key: "shift+y",
        menu: "Fade the rest",
        run: () => seeing.fadeRest(),
      },
      { group: "Show", name: "Show selection again", run: () => seeing.bringBack() },
      { group: "Show", name: "Show everything", key: "shift+c", run: seeing.everything },
      ...STYLES.map<Action>(({ style, says }) => ({
        group: "Show",
        name: `Draw everything ${says}`,
        run: () => setStyle(style),
      })),
      { group: "Show", name: "Material colours from the files", run: materialColours },
      { group: "Show", name: "Discipline colours, without tints", run: tradeColours },
      { group: "Show", name: "Undo", key: "ctrl+z", run: seeing.undo },
      { group: "Show", name: "Redo", key: "ctrl+y", run: seeing.redo },
      {
        group: "Show",
        name: "Put down the tool, clear selection",
        key: "escape",
        run: () => (useTools.getState().tool ? tools.putAway() : pick([])),
      },
    ];
  }, [seeing]);
}
