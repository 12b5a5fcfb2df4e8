import { useMemo } from "react";
import type { Action } from "../open/action";
import { perProject } from "../open/perProject";
import { pickedNow } from "../open/selection";
import { useSession } from "../open/session";

/** Whether what is around the component on the desk is asked for as soon as it stands there. */
export const useAroundAsked = perProject<{ asked: boolean }>(() => ({ asked: false }));

/** Asking what is around what is selected, by name and from the menu. */
export function useAroundActions(): readonly Action[] {
  return useMemo<readonly Action[]>(
    () => [
      {
        group: "Select",
        name: "What is around the selection",
        menu: "What is around it",
        run: () => {
          const { open, say } = useSession.getState();
          if (pickedNow().length !== 1) return say("Select one component, then ask what is around it.");
          useAroundAsked.setState({ asked: true });
          open("component");
        },
      },
    ],
    [],
  );
}
