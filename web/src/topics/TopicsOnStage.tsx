import { useEffect } from "react";
import { useSession } from "../open/session";
import { openOnDesk } from "../open/topics/topicsState";
import { plateOf, useMarkedTopics } from "../open/topics/useMarkedTopics";
import { useOpen } from "../open/useStage";
import { TopicMarks } from "../stage/layers/topicMarks";

/** Topics that are not settled, as numbered plates on the stage; a click opens one. */
export function TopicsOnStage() {
  const { stage } = useOpen();
  const marked = useMarkedTopics();
  useEffect(
    () =>
      stage()
        ?.layer(TopicMarks)
        .show(marked.map(({ topic, at }) => ({ id: topic.id, called: plateOf(topic), at }))),
    [stage, marked],
  );
  useEffect(() => {
    const view = stage();
    if (!view) return;
    view.layer(TopicMarks).clicked = (ids) => {
      const [only] = ids;
      if (ids.length === 1 && only) return openOnDesk(only);
      const names = marked.filter(({ topic }) => ids.includes(topic.id)).map(({ topic }) => topic.reference);
      useSession.getState().say(`${names.join(", ")} are here. Zoom in to separate them.`);
    };
  }, [stage, marked]);
  return null;
}
