import { useInfiniteQuery } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";

/** Which entries of a record are meant; nothing for all. Days are of this browser's own time. */
export interface RecordFilter {
  who: string;
  kind: string;
  thing: string;
  from: string;
  to: string;
}

const DAY_MS = 86_400_000;

/** A filter as the server takes it. */
export function asked({ who, kind, thing, from, to }: RecordFilter): Record<string, string> {
  const begins = (day: string, more = 0) => new Date(new Date(`${day}T00:00`).getTime() + more).toISOString();
  const all = {
    who,
    kind,
    thing,
    since: from && begins(from),
    until: to && begins(to, DAY_MS),
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value));
}

/** Where a record is saved as a file. */
export function recordFile(projectId: string | null, form: "csv" | "jsonl", filter: RecordFilter): string {
  const at = projectId === null ? "/api/record" : `/api/projects/${projectId}/record`;
  return `${at}/${form}?${new URLSearchParams(asked(filter))}`;
}

/** The record of a project, or of the server, the last first, so many entries at a time. */
export function useRecord(projectId: string | null, filter: RecordFilter) {
  return useInfiniteQuery({
    queryKey: ["record", projectId, filter],
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }): Promise<Shapes["Record"]> => {
      const query = { ...asked(filter), ...(pageParam === null ? {} : { before: pageParam }) };
      return answerOf(
        projectId === null
          ? api.GET("/api/record", { params: { query } })
          : api.GET("/api/projects/{project_id}/record", {
              params: { path: { project_id: projectId }, query },
            }),
      );
    },
    getNextPageParam: (last) => (last.more ? (last.entries.at(-1)?.number ?? null) : null),
  });
}
