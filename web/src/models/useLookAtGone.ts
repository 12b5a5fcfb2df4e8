import { useQueryClient } from "@tanstack/react-query";
import { Vector3 } from "three";
import { goneQuery } from "../api/queries";
import { type GoneFrom, useCompared } from "../open/compared";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useSession, withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";

/** Draws what is gone and looks at where one of it stood. */
export function useLookAtGone(from: GoneFrom) {
  const { projectId, federation } = useOpen();
  const client = useQueryClient();
  const { fitTo } = useCameraCommands();
  return (globalId: string) =>
    void withErrorNotice(async () => {
      const { removed } = await client.fetchQuery(
        goneQuery(projectId, from.model, from.against, federation.version),
      );
      useCompared.getState().show(from);
      const one = removed.components.find(({ ref }) => ref.global_id === globalId);
      if (!one) {
        useSession.getState().say("It has no shape, or there are too many removed components to draw.");
        return;
      }
      const points = [one.low_m, one.high_m].map((corner) => new Vector3().fromArray(corner));
      await fitTo({ kind: "points", points, cause: `where ${one.label} was` });
    });
}
