import { useMemo } from "react";
import type { Action } from "../open/action";
import { beginTopic, useTopicsShown } from "../open/topics/topicsState";

/** Making a topic, and topics as a table, by name and from the menu. */
export function useTopicActions(): readonly Action[] {
  const table = useTopicsShown((s) => s.table);
  return useMemo<readonly Action[]>(
    () => [
      {
        group: "Together",
        name: "Make a topic of this view",
        menu: "Make a topic",
        needs: "write topics and comments",
        run: beginTopic,
      },
      {
        group: "Together",
        name: table ? "Close the table of topics" : "Show topics as a table",
        run: () => useTopicsShown.getState().put({ table: table ? null : "below" }),
      },
    ],
    [table],
  );
}
