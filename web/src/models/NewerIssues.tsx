import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { usePerson } from "../api/person";
import { changesQuery, issuesQuery, useModels } from "../api/queries";
import { useCompared } from "../open/compared";
import { perProject } from "../open/perProject";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { useVisit, useVisitNoted } from "../open/useVisit";
import { counts } from "./differences";
import { broughtSince, knownIssue } from "./newer";

/** The models of which somebody else brought a newer issue since this person was here, until their desk is opened. */
const useNewer = perProject<{ count: number }>(() => ({ count: 0 }));

const SHOW = "Show the list";

export function useNewIssues(): number {
  return useNewer((s) => s.count);
}

/** Tells who opens the project what newer issues brought since they were here, one click from the list. */
export function NewerIssues() {
  useVisitNoted();
  const { projectId, federation } = useOpen();
  const client = useQueryClient();
  const me = usePerson((s) => s.name);
  const before = useVisit((s) => s.before);
  const { data: models } = useModels(projectId);
  const opened = useSession((s) => s.task === "models" && !s.folded.desk);
  const told = useRef(false);
  const { version } = federation;
  useEffect(() => {
    if (told.current || !before || !models) return;
    told.current = true;
    const tell = async () => {
      const words: string[] = [];
      for (const model of broughtSince(models, before, me)) {
        const known = knownIssue(await client.fetchQuery(issuesQuery(projectId, model.id)), before);
        if (!known) continue;
        const against = `issue:${known.id}`;
        const differs = counts(await client.fetchQuery(changesQuery(projectId, model.id, against, version)));
        if (!differs) continue;
        words.push(`${model.discipline ?? model.name}: ${differs}`);
        useCompared.getState().compare(model.id, against);
      }
      if (!words.length) return;
      useNewer.setState({ count: words.length });
      const { say, open } = useSession.getState();
      say(`New since you were here. ${words.join("; ")}.`, () => open("models"), SHOW);
    };
    // What cannot be compared is on the Models desk, which says why.
    void tell().catch(() => undefined);
  }, [before, models, me, client, projectId, version]);
  useEffect(() => {
    if (!opened) return;
    useNewer.setState({ count: 0 });
    const { notice, hush } = useSession.getState();
    if (notice?.called === SHOW) hush();
  }, [opened]);
  return null;
}
