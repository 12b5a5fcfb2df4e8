import { useCallback } from "react";
import { useViewpoints } from "../../api/queries";
import { useOpen } from "../useStage";
import { useShowViewpoint } from "../views/viewpoints";
import type { Topic } from "./listed";
import { openOnDesk } from "./topicsState";

/** Goes to the first view of a topic, if it has one. */
export function useShowPlace() {
  const { projectId } = useOpen();
  const { data: views } = useViewpoints(projectId);
  const show = useShowViewpoint();
  return useCallback(
    (topic: Topic) => {
      const first = views?.find(({ id }) => id === topic.views[0]);
      if (first) void show(first);
    },
    [views, show],
  );
}

/** Opens a topic on the desk and goes to its first view. */
export function useOpenTopic() {
  const showPlace = useShowPlace();
  return useCallback(
    (topic: Topic) => {
      openOnDesk(topic.id);
      showPlace(topic);
    },
    [showPlace],
  );
}
