import Box from "@mui/material/Box";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef } from "react";
import type { ListRow } from "../open/topics/listed";
import { useTopicsShown } from "../open/topics/topicsState";
import { face, tone } from "../style/theme";
import { TopicRow } from "./TopicRow";
import { useTopicKeys } from "./useTopicKeys";

const ROW_PX = 41;

/** The rows of the list; only those in sight are on the page. */
export function TopicRows({ rows }: { rows: readonly ListRow[] }) {
  const scroller = useRef<HTMLDivElement>(null);
  const put = useTopicsShown((s) => s.put);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => rows[index]?.key ?? index,
    overscan: 8,
  });
  const key = useTopicKeys(rows, scroller, virtual.scrollToIndex);
  return (
    <Box
      ref={scroller}
      data-testid="topic-rows"
      sx={{ overflow: "auto", flex: "1 1 200px", minHeight: 160, mx: -1.5, px: 1.5 }}
    >
      <Box sx={{ height: virtual.getTotalSize(), position: "relative" }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index];
          if (!row) return null;
          return (
            <Box
              key={row.key}
              ref={virtual.measureElement}
              data-index={index}
              onKeyDown={(event) => key(event, index)}
              sx={{ position: "absolute", top: start, left: 0, right: 0 }}
            >
              {row.kind === "group" ? (
                <Box sx={{ fontFamily: face.head, fontWeight: 600, fontSize: 13, pt: 1, color: tone.ink }}>
                  {row.name}{" "}
                  <Box component="span" sx={{ color: tone.soft }}>
                    {row.count}
                  </Box>
                </Box>
              ) : (
                <TopicRow topic={row.topic} open={() => put({ opened: row.topic.id })} />
              )}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
