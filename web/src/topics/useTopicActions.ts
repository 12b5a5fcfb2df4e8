import { useMemo } from "react";
import type { Action } from "../open/action";
import { beginTopic } from "../open/topics/topicsState";

/** Making a topic, by name and from the menu. */
export function useTopicActions(): readonly Action[] {
  return useMemo<readonly Action[]>(
    () => [{ group: "Together", name: "Make a topic of this view", menu: "Make a topic", run: beginTopic }],
    [],
  );
}
