import { useMemo } from "react";
import { numberingOf } from "../numbering";
import { pickedNow, useSelection } from "../selection";
import { useSession } from "../session";
import { redoNext, undoLast } from "../undoLine";
import { useOpen } from "../useStage";
import type { Selector } from "./selectors";
import { useViewState } from "./viewState";

/** Hiding, isolating, fading and bringing back; each a rule with a name, and undone by name. */
export function useSeeing() {
  const { federation } = useOpen();
  return useMemo(() => {
    const { say } = useSession.getState();
    const { wish } = useViewState.getState();
    const picked = (): Selector | null => {
      const numbers = pickedNow();
      if (numbers.length) return numberingOf(federation).these(numbers);
      say("Nothing is selected. Click a component first.");
      return null;
    };
    const of = (select: Selector | null | undefined) => select ?? picked();
    return {
      put: (effect: "show" | "fade" | "hide", select: Selector) => wish({ select, effect }),
      hide: (wanted?: Selector) => {
        const select = of(wanted);
        if (!select) return;
        wish({ select, effect: "hide" });
        useSelection.getState().pick([]);
      },
      only: (wanted?: Selector) => {
        const select = of(wanted);
        if (select) wish({ select, effect: "only" });
      },
      fadeRest: (wanted?: Selector) => {
        const select = of(wanted);
        if (select) wish({ select, effect: "fade_rest" });
      },
      bringBack: (wanted?: Selector) => {
        const select = of(wanted);
        if (select) wish({ select, effect: "show" });
      },
      everything: () => {
        const { rules, depthM, cuts, change } = useViewState.getState();
        if (rules.length || depthM !== null) change({ rules: [], depthM: null }, "showed everything");
        else if (cuts.some((cut) => !cut.off))
          say("Everything is shown. Switch off the cuts to see what they remove.");
        else say("Everything is already shown.");
      },
      undo: async () => {
        const name = await undoLast();
        if (name === false) return;
        say(name === null ? "There is nothing to undo." : `Undone: ${name || "the last change"}.`);
      },
      redo: async () => {
        const name = await redoNext();
        if (name === false) return;
        say(name === null ? "There is nothing to redo." : `Redone: ${name || "the next change"}.`);
      },
    };
  }, [federation]);
}
