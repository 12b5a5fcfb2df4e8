import { useEffect } from "react";
import { answerOf, api } from "../api/client";
import { usePerson } from "../api/person";
import { perProject } from "./perProject";
import { useOpen } from "./useStage";

interface Visit {
  /** When this person was here before, as the server wrote it; null for who never was, undefined until that is known. */
  before: string | null | undefined;
}

export const useVisit = perProject<Visit>(() => ({ before: undefined }));

/** Tells the server that this person is here, at first and with each version of the building; once on the page. */
export function useVisitNoted(): void {
  const { projectId, federation } = useOpen();
  const name = usePerson((s) => s.name);
  const { version } = federation;
  // biome-ignore lint/correctness/useExhaustiveDependencies: who sees a version come was here when it came
  useEffect(() => {
    const note = async () => {
      const { before } = await answerOf(
        api.POST("/api/projects/{project_id}/visits", { params: { path: { project_id: projectId } } }),
      );
      if (useVisit.getState().before === undefined) useVisit.setState({ before });
    };
    // Without it nothing is said to be new, and nothing else is missing.
    void note().catch(() => undefined);
  }, [projectId, name, version]);
}
