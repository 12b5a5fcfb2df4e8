import type { Framed } from "../../stage/pictures";

export type Side = "left" | "right" | "bottom" | "top";

/** So much of what is beyond the view may be taken into a picture: its half is 1. */
export const WIDEST = 1.6;
const LEAST = 0.2;

export const SIZES = [
  [720, "for the screen"],
  [2400, "for print"],
  [3600, "for a large print"],
] as const;

const within = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);

/** A frame whose side was dragged, or the whole of it, by parts of the view; it stays within what can be drawn. */
export function dragged(frame: Framed, side: Side | "all", by: { x: number; y: number }): Framed {
  const { left, right, bottom, top } = frame;
  if (side === "all") {
    const x = within(by.x, -WIDEST - left, WIDEST - right);
    const y = within(by.y, -WIDEST - bottom, WIDEST - top);
    return { ...frame, left: left + x, right: right + x, bottom: bottom + y, top: top + y };
  }
  const to = {
    left: () => within(left + by.x, -WIDEST, right - LEAST),
    right: () => within(right + by.x, left + LEAST, WIDEST),
    bottom: () => within(bottom + by.y, -WIDEST, top - LEAST),
    top: () => within(top + by.y, bottom + LEAST, WIDEST),
  };
  return { ...frame, [side]: to[side]() };
}

/** Whether a frame is the view itself. */
export function isWhole({ left, right, bottom, top }: Framed): boolean {
  return left === -1 && right === 1 && bottom === -1 && top === 1;
}

/** Where a frame lies on a picture of the widest, in percent from its top left. */
export function placed({ left, right, bottom, top }: Framed) {
  const share = (value: number) => `${((value + WIDEST) / (2 * WIDEST)) * 100}%`;
  return {
    left: share(left),
    top: share(-top),
    width: share(right - left - WIDEST),
    height: share(top - bottom - WIDEST),
  };
}
