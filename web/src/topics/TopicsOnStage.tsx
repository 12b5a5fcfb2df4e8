import { useEffect, useMemo } from "react";
import { Vector3 } from "three";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { openOnDesk, useTopicsShown } from "./topicsState";
import { useStatuses, useTopics } from "./useTopics";

/** Topics that are not settled, as numbered plates on the stage; a click opens one. */
export function TopicsOnStage() {
  const { stage, federation } = useOpen();
  const { data: topics } = useTopics();
  const statuses = useStatuses();
  const marked = useTopicsShown((s) => s.marked);
  const signs = useMemo(() => {
    const ends = new Set(statuses.filter(({ end }) => end).map(({ name }) => name));
    return (topics ?? [])
      .filter(({ at_m, said }) => marked && at_m && !ends.has(said.status ?? ""))
      .map(({ id, number, at_m }) => ({
        id,
        number,
        at: new Vector3().fromArray((at_m ?? []).map((c, k) => c - (federation.origin_m[k] ?? 0))),
      }));
  }, [topics, statuses, marked, federation]);
  useEffect(() => stage()?.topicMarks.show(signs), [stage, signs]);
  useEffect(() => {
    const view = stage();
    if (!view) return;
    view.taken.topics = (ids) => {
      const [only] = ids;
      if (ids.length === 1 && only) return openOnDesk(only);
      const names = (topics ?? []).filter(({ id }) => ids.includes(id)).map(({ reference }) => reference);
      useSession.getState().say(`${names.join(", ")} are here; come nearer to part them.`);
    };
  }, [stage, topics]);
  return null;
}
