import { useMemo } from "react";
import { useTopics } from "../open/topics/useTopics";
import { topicsByPair } from "./finding";

/** The project's topics by the pairs of components of their findings. */
export function useTopicsByPair() {
  const { data: topics } = useTopics();
  return useMemo(() => topicsByPair(topics ?? []), [topics]);
}

export type TopicsByPair = ReturnType<typeof useTopicsByPair>;
