import { useMemo } from "react";
import type { Action } from "../open/action";
import { useSelection } from "../open/selection";
import { useTools } from "../open/tools";
import { materialColours, tradeColours } from "../open/visibility/tints";
import { useSeeing } from "../open/visibility/useSeeing";
import { STYLES, setStyle } from "./styles";

/** Hiding, isolating, fading, bringing back, and undoing it. */
export function useSeenActions(): readonly Action[] {
  const seeing = useSeeing();
  return useMemo<readonly Action[]>(() => {
    const { pick } = useSelection.getState();
    const tools = useTools.getState();
    return [
      { group: "Show", name: "Hide what is picked", key: "c", run: () => seeing.hide() },
      { group: "Show", name: "Show only what is picked", key: "y", run: () => seeing.only() },
      { group: "Show", name: "Fade all but what is picked", key: "shift+y", run: () => seeing.fadeRest() },
      { group: "Show", name: "Bring back what is picked", run: () => seeing.bringBack() },
      { group: "Show", name: "Bring everything back", key: "shift+c", run: seeing.everything },
      ...STYLES.map<Action>(({ style, says }) => ({
        group: "Show",
        name: `Draw everything ${says}`,
        run: () => setStyle(style),
      })),
      { group: "Show", name: "Colours of the materials, as the files have them", run: materialColours },
      { group: "Show", name: "Colours of the trades, without tints", run: tradeColours },
      { group: "Show", name: "Undo", key: "ctrl+z", run: seeing.undo },
      { group: "Show", name: "Do again what was undone", key: "ctrl+y", run: seeing.redo },
      {
        group: "Show",
        name: "Put the tool away, let go of what is picked",
        key: "escape",
        run: () => (useTools.getState().tool ? tools.take(null) : pick([])),
      },
    ];
  }, [seeing]);
}
