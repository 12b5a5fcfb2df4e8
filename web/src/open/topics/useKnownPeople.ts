import { useMemo } from "react";
import { usePerson } from "../../api/person";
import { useTogether } from "../together/togetherState";
import { useTopics } from "./useTopics";

/** Whom one may mean: oneself, who is here, and who was named in the project's topics; each once, by name. */
export function useKnownPeople(): readonly string[] {
  const own = usePerson((s) => s.name);
  const here = useTogether((s) => s.people);
  const { data } = useTopics();
  return useMemo(() => {
    const named = (data ?? []).flatMap(({ said, changed_by }) => [said.assigned_to, changed_by]);
    const all = [own, ...here.map(({ name }) => name), ...named];
    return [...new Set(all.map((name) => name.trim()).filter(Boolean))].sort((a, b) => a.localeCompare(b));
  }, [own, here, data]);
}
