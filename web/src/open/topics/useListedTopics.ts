import { useMemo } from "react";
import { usePerson } from "../../api/person";
import { type ListRow, listed, rowsOf, type Topic } from "./listed";
import { useTopicsShown } from "./topicsState";
import { useTopicRules, useTopics } from "./useTopics";

/** The topics that are meant, found by what is typed, as they are listed: sorted and grouped. */
export function useListedTopics(): { shown: readonly Topic[]; rows: readonly ListRow[] } {
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
  return { shown, rows };
}
