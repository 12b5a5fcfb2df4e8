import { useEffect } from "react";
import { onStage } from "../open/origin";
import { useSession } from "../open/session";
import { useFindings, useTasks } from "../open/tasks/useTasks";
import { useOpen } from "../open/useStage";
import { FindingMarks } from "../stage/layers/findingMarks";
import { useLooked } from "./finding";

/** The findings of the check that is open, circled and numbered on the stage while its desk is. */
export function FindingsOnStage() {
  const { stage, federation } = useOpen();
  const { opened, at } = useLooked();
  const shown = useSession((s) => s.task === "findings" && !s.folded.desk);
  const { data: tasks } = useTasks();
  const made = tasks?.find((task) => task.id === opened)?.made ?? 0;
  const { data } = useFindings(shown ? opened : null, made);
  useEffect(() => {
    const marks = shown && opened && made ? (data?.findings ?? []) : [];
    stage()
      ?.layer(FindingMarks)
      .show(
        marks.map((finding) => onStage(finding.at_m, federation.origin_m)),
        at,
      );
  }, [stage, federation, shown, opened, made, data, at]);
  return null;
}
