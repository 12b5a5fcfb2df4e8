import { type KeyboardEvent, useRef, useState } from "react";
import { besides } from "./board";

/** Going over a board of buttons by the arrow keys; the Tab key reaches the one that was reached last. */
export function useArrows(rows: number, columns: number) {
  const frame = useRef<HTMLDivElement>(null);
  const [wanted, setReached] = useState<readonly [number, number]>([1, 0]);
  const at = (row: number, column: number) =>
    frame.current?.querySelector<HTMLElement>(`[data-place="${row}/${column}"]`) ?? null;
  const [row, column] = [Math.min(wanted[0], rows - 1), Math.min(wanted[1], columns - 1)];
  const onKey = (event: KeyboardEvent) => {
    const from = (event.target as HTMLElement).dataset.place?.split("/").map(Number);
    if (!from || event.defaultPrevented) return;
    const here = [from[0] ?? 0, from[1] ?? 0] as const;
    const to = besides(event.key, here, (r, c) => at(r, c) !== null, [rows, columns]);
    if (to[0] === here[0] && to[1] === here[1]) return;
    event.preventDefault();
    event.stopPropagation();
    setReached(to);
    at(...to)?.focus();
  };
  return { frame, onKey, reached: [row, column] as const };
}
