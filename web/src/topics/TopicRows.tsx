import Box from "@mui/material/Box";
import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useRef } from "react";
import type { ListRow } from "../open/topics/listed";
import { useTopicsShown } from "../open/topics/topicsState";
import { useOpenTopic, useShowPlace } from "../open/topics/useOpenTopic";
import { face, tone } from "../style/theme";
import { TopicRow } from "./TopicRow";

const ROW_PX = 64;

/** The rows of the list; only those in sight are on the page. Arrows go over them, Space looks at the place, Enter opens. */
export function TopicRows({ rows }: { rows: readonly ListRow[] }) {
  const scroller = useRef<HTMLDivElement>(null);
  const put = useTopicsShown((s) => s.put);
  const open = useOpenTopic();
  const showPlace = useShowPlace();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => rows[index]?.key ?? index,
    overscan: 8,
  });
  const focus = (from: number, step: 1 | -1) => {
    let to = from + step;
    while (rows[to]?.kind === "group") to += step;
    if (!rows[to]) return;
    const there = () =>
      scroller.current?.querySelector<HTMLElement>(`[data-index="${to}"] [data-testid=topic]`);
    virtual.scrollToIndex(to);
    const row = there();
    if (row) row.focus();
    // One that was not on the page yet is there with the next frame.
    else requestAnimationFrame(() => there()?.focus());
  };
  const key = (event: KeyboardEvent, index: number) => {
    const row = rows[index];
    if (row?.kind !== "topic") return;
    if (event.key === "ArrowDown") focus(index, 1);
    else if (event.key === "ArrowUp") focus(index, -1);
    else if (event.key === " ") showPlace(row.topic);
    else if (event.key === "Enter") open(row.topic);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
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
