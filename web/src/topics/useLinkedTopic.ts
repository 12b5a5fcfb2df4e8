import { useEffect } from "react";
import { useParams } from "react-router";
import { openOnDesk } from "../open/topics/topicsState";

/** Opens the topic that the address names, if it names one. */
export function useLinkedTopic(): void {
  const { topicId } = useParams();
  useEffect(() => {
    if (topicId) openOnDesk(topicId);
  }, [topicId]);
}
