import type { KeyboardEvent, RefObject } from "react";
import type { ListRow } from "../open/topics/listed";
import { useOpenTopic, useShowPlace } from "../open/topics/useOpenTopic";

/** Keys on a list of topics of which only those in sight are on the page: arrows go over them, Space looks at the place, Enter opens. */
export function useTopicKeys(
  rows: readonly ListRow[],
  scroller: RefObject<HTMLElement | null>,
  bringIntoSight: (index: number) => void,
) {
  const open = useOpenTopic();
  const showPlace = useShowPlace();
  const focus = (from: number, step: 1 | -1) => {
    let to = from + step;
    while (rows[to]?.kind === "group") to += step;
    if (!rows[to]) return;
    const there = () =>
      scroller.current?.querySelector<HTMLElement>(`[data-index="${to}"] [data-testid=topic]`);
    bringIntoSight(to);
    const row = there();
    if (row) row.focus();
    // One that was not on the page yet is there with the next frame.
    else requestAnimationFrame(() => there()?.focus());
  };
  return (event: KeyboardEvent, index: number) => {
    const row = rows[index];
    if (row?.kind !== "topic") return;
    // On its tick the keys are those of any tick.
    const onTick = event.target instanceof HTMLInputElement;
    if (event.key === "ArrowDown") focus(index, 1);
    else if (event.key === "ArrowUp") focus(index, -1);
    else if (event.key === " " && !onTick) showPlace(row.topic);
    else if (event.key === "Enter" && !onTick) open(row.topic);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
}
