import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { answerOf, api } from "../api/client";
import { useOpen } from "../open/useStage";
import { type Measure, type Rule, useViewState } from "../open/visibility/viewState";
import type { Found } from "./measuring";

/** What was asked, so that an answer to something else is not taken for it. */
function asked({ id, what }: Pick<Measure, "id" | "what">, rules: readonly Rule[]): string {
  return JSON.stringify([id, what, what.kind === "clear" ? rules : null]);
}

const NO_RULES: readonly Rule[] = [];

/** What the measures of the view come to; undefined for one whose answer is not there. */
export function useFound() {
  const { projectId, federation } = useOpen();
  const measures = useViewState((s) => s.measures);
  const seen = useViewState((s) => s.rules);
  const wish = measures.map(({ id, what }) => ({ id, what, name: "" }));
  // What is hidden is not there for the room at a point; other measures do not ask.
  const rules = measures.some(({ what }) => what.kind === "clear") ? seen : NO_RULES;
  const { data, error } = useQuery({
    queryKey: ["measures", projectId, federation.version, wish, rules],
    enabled: wish.length > 0,
    gcTime: 60_000,
    // While one more is worked out the others stay as they are.
    placeholderData: keepPreviousData,
    queryFn: async () => {
      const { version, found } = await answerOf(
        api.POST("/api/projects/{project_id}/measures", {
          params: { path: { project_id: projectId } },
          body: { measures: wish, rules: [...rules] },
        }),
      );
      const by = new Map(wish.map((each, k) => [asked(each, rules), found[k]] as const));
      return { version, by };
    },
  });
  const of = useCallback(
    (measure: Measure): Found | undefined =>
      data?.version === federation.version ? data.by.get(asked(measure, rules)) : undefined,
    [data, federation.version, rules],
  );
  return { of, error };
}
