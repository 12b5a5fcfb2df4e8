import { useMemo } from "react";
import type { Vector3 } from "three";
import { onStage } from "../origin";
import { useSession } from "../session";
import { useOpen } from "../useStage";
import type { Topic } from "./listed";
import { openOnDesk, useTopicsShown } from "./topicsState";
import { useStatuses, useTopics } from "./useTopics";

/** A topic at its place on the stage. */
export interface MarkedTopic {
  topic: Topic;
  at: Vector3;
}

/** The topics that are not settled and have a place, unless they were put away. */
export function useMarkedTopics(): readonly MarkedTopic[] {
  const { federation } = useOpen();
  const { data: topics } = useTopics();
  const statuses = useStatuses();
  const marked = useTopicsShown((s) => s.marked);
  return useMemo(() => {
    const ends = new Set(statuses.filter(({ end }) => end).map(({ name }) => name));
    return (topics ?? [])
      .filter(({ at_m, said }) => marked && at_m && !ends.has(said.status ?? ""))
      .map((topic) => ({
        topic,
        at: onStage(topic.at_m ?? [], federation.origin_m),
      }));
  }, [topics, statuses, marked, federation]);
}

/** Open the topic of a mark; of several that are one mark say which they are, and list them. */
export function openMarked(topics: readonly Topic[]): void {
  const [only] = topics;
  if (topics.length === 1 && only) {
    openOnDesk(only.id);
    return;
  }
  useTopicsShown.getState().put({ opened: null, meeting: false, typed: "", which: "open", group: "level" });
  useSession.getState().open("topics");
  useSession.getState().say(`Here are ${topics.map(({ reference }) => reference).join(", ")}.`);
}

/** What a mark is called. */
export function calledMark(topics: readonly Topic[]): string {
  const [only] = topics;
  return topics.length === 1 && only ? `${only.reference}: ${only.said.title}` : `${topics.length} topics`;
}

/** What stands on the plate of a topic: its number, and its variant. */
export function plateOf({ number, variant }: Topic): string {
  return `${number}${variant}`;
}
