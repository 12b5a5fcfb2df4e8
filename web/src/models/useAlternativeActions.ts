import { useMemo } from "react";
import { useModelAct } from "../api/queries";
import type { Action } from "../open/action";
import { withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";

/** Letting an alternative stand in place of another one, each by its name. */
export function useAlternativeActions(): readonly Action[] {
  const { federation, projectId } = useOpen();
  const { mutateAsync } = useModelAct(projectId);
  return useMemo(
    () =>
      federation.models
        .filter(({ alternative_what }) => alternative_what)
        .map<Action>(({ id, alternative_what, alternative_option, stands }) => ({
          group: "Show",
          name: `Alternative ${alternative_option} of ${alternative_what}: ${stands ? "in use" : "use it"}`,
          needs: "change the models",
          run: () => {
            if (!stands) void withErrorNotice(() => mutateAsync({ id, act: "stand" }));
          },
        })),
    [federation, mutateAsync],
  );
}
