import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api } from "../api/client";
import { scheduleQuery } from "../api/queries";
import { type Condition, conditionOf } from "../open/selections/conditions";
import { treeOf } from "../open/selections/groups";
import { useRegister } from "../open/selections/registerState";
import { withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { useSettled } from "../parts/useSettled";
import { columnOf } from "./besideEach";

/** The conditions that were typed to their ends. */
export function useConditions(): readonly Condition[] {
  const drafts = useRegister((s) => s.drafts);
  return useMemo(() => drafts.flatMap((draft) => conditionOf(draft) ?? []), [drafts]);
}

const PAUSE_MS = 200;

function useWish() {
  const conditions = useConditions();
  const { steps, sums, columns } = useRegister();
  return useMemo(
    () => ({
      steps: [...steps],
      sums: [...sums],
      columns: [...columns],
      conditions: [...conditions],
      shown_by: null,
    }),
    [steps, sums, columns, conditions],
  );
}

type Answer = Awaited<ReturnType<NonNullable<ReturnType<typeof scheduleQuery>["queryFn"]>>>;

/** The groups of an answer as a tree, one storey for each step that it was asked for, and its columns unpacked. */
const treed = (answer: Answer) => ({
  ...answer,
  columns: answer.columns.map(columnOf),
  tree: treeOf(answer.groups, answer.groups[0]?.key.length ?? 0),
});

/** What the register lists, grouped by the server. */
export function useSchedule() {
  const { projectId, federation } = useOpen();
  const wished = useWish();
  const wish = useSettled(wished, PAUSE_MS);
  const { data, error, isPlaceholderData } = useQuery({
    ...scheduleQuery(projectId, federation.version, wish),
    gcTime: 60_000,
    retry: false,
    placeholderData: keepPreviousData,
    select: treed,
  });
  // An answer for another version has other numbers.
  const list = data?.version === federation.version && !error ? data : undefined;
  return { list, error, coming: isPlaceholderData || wish !== wished };
}

/** Saves the schedule as a file. */
export function useSaveSchedule() {
  const { projectId } = useOpen();
  const wish = useWish();
  return (form: "csv" | "xlsx") =>
    withErrorNotice(async () => {
      const file = await answerOf(
        api.POST("/api/projects/{project_id}/schedule/{form}", {
          params: { path: { project_id: projectId, form } },
          body: wish,
          parseAs: "blob",
        }),
      );
      const link = document.createElement("a");
      link.href = URL.createObjectURL(file);
      link.download = `schedule.${form}`;
      link.click();
      URL.revokeObjectURL(link.href);
    });
}
