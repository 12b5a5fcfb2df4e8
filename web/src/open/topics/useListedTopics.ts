import { useMemo } from "react";
import { usePerson } from "../../api/person";
import { type ListRow, listed, rowsOf, type Topic } from "./listed";
import { useTopicsShown } from "./topicsState";
import { useTopicRules, useTopics } from "./useTopics";

/** The topics that are meant, found by what is typed, as they are listed: sorted and grouped; and how many of how many. */
export function useListedTopics(): { shown: readonly Topic[]; rows: readonly ListRow[]; count: string } {
  const { data } = useTopics();
  const { data: rules } = useTopicRules();
  const { which, typed, sort, falling, group } = useTopicsShown();
  const me = usePerson((s) => s.name);
  const ends = useMemo(
    () => new Set(rules?.statuses.filter(({ end }) => end).map(({ name }) => name)),
    [rules],
  );
  const shown = useMemo(() => listed(data ?? [], which, typed, me, ends), [data, which, typed, me, ends]);
  const rows = useMemo(
    () => rowsOf(shown, sort, group, rules?.priorities, falling),
    [shown, sort, group, rules, falling],
  );
  const all = data?.length ?? 0;
  return { shown, rows, count: shown.length === all ? `${all}` : `${shown.length} of ${all}` };
}
