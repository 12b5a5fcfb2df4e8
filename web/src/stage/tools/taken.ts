import type { Gesture } from "../gestures/gesture";
import type { MarkupHit } from "../layers/markups";

/** What becomes of clicks and drags on what is drawn over the building; set by whoever keeps it. */
export class Taken {
  clicked: (hit: MarkupHit) => void = () => undefined;
  /** What a drag makes of it, or null where it is left alone. */
  gripped: (hit: MarkupHit) => Gesture | null = () => null;
  /** The plate of some topics was clicked. */
  topics: (ids: readonly string[]) => void = () => undefined;
}
