import { useMemo } from "react";
import { useTopics } from "../open/topics/useTopics";
import { topicsByPair } from "./finding";

/** The project's topics by the pairs of components that they are about. */
export function useTopicsByPair() {
  const { data: topics } = useTopics();
  return useMemo(() => topicsByPair(topics ?? []), [topics]);
}

export type TopicsByPair = ReturnType<typeof useTopicsByPair>;
