import type { Gesture } from "../gestures/gesture";
import type { MarkupHit } from "../layers/markups";

/** What becomes of clicks and drags on what is drawn over the building; set by whoever keeps it. */
export interface Taken {
  clicked(hit: MarkupHit): void;
  /** What a drag makes of it, or null where it is left alone. */
  gripped(hit: MarkupHit): Gesture | null;
}

export const LEFT_ALONE: Taken = { clicked: () => undefined, gripped: () => null };
