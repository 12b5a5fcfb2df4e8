import type { ModelCard, Shapes } from "../api/client";
import { useCorrections } from "../api/queries";
import { useSession, withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { wishOf } from "./alignState";

/** Align a model otherwise, for the whole project; what is done is said, and has a way back. */
export function useAlign(model: ModelCard) {
  const { projectId } = useOpen();
  const { align, alignByPoints } = useCorrections(projectId);
  const say = useSession((s) => s.say);
  const before = wishOf(model);
  // Awaited rather than called back: what was typed into is made anew before the answer comes.
  const back = () =>
    void withErrorNotice(async () => {
      await align.mutateAsync({ id: model.id, wish: before });
      say(`${model.name} is aligned as before.`);
    });
  const done = () => say(`${model.name} is being aligned again.`, back);
  return {
    align: (wish: Shapes["AlignmentRequest"]) =>
      void withErrorNotice(async () => {
        await align.mutateAsync({ id: model.id, wish });
        done();
      }),
    byPoints: (wish: Shapes["PointsRequest"], stop: () => void) =>
      void withErrorNotice(async () => {
        await alignByPoints.mutateAsync({ id: model.id, wish });
        stop();
        done();
      }),
  };
}
