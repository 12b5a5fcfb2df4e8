import { Vector2 } from "three";
import type { Boxing } from "../geometry/boxed";
import type { Gesture, Press } from "../gesture";
import type { Rectangle, View } from "../view";

/** A box that is being drawn, in pixels of its view, and what it means. */
export interface DrawnBox extends Rectangle {
  how: Boxing;
}

/** What becomes of those in the box: they alone are picked, they are added, or they are taken away. */
export type Taking = "alone" | "added" | "taken";

/** A box narrower than this share of the frame was a slip of the hand. */
const LEAST = 0.004;

/** Drawing a box around components: from left to right means what is inside, from right to left what it touches. */
export class BoxPick implements Gesture {
  private ends: { from: Vector2; to: Vector2; taking: Taking } | null = null;

  constructor(
    private readonly view: View,
    /** The box as it is drawn; null once it is done. */
    private readonly drawn: (box: DrawnBox | null) => void,
    private readonly taken: (components: readonly number[], taking: Taking) => void,
  ) {}

  private static how(from: Vector2, to: Vector2): Boxing {
    return to.x >= from.x ? "inside" : "touching";
  }

  move(from: Vector2, to: Vector2, press: Press): void {
    const begun = this.ends?.from ?? from.clone();
    this.ends = { from: begun, to, taking: press.through ? "taken" : press.adds ? "added" : "alone" };
    this.drawn({ ...this.view.rectangle(begun, to), how: BoxPick.how(begun, to) });
  }

  end(broken: boolean): void {
    this.drawn(null);
    if (broken || !this.ends) return;
    const { from, to, taking } = this.ends;
    const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
    const [low, high] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
    if (Math.max(right - left, high - low) < LEAST) return;
    this.taken(
      this.view.within(new Vector2(left, low), new Vector2(right, high), BoxPick.how(from, to)),
      taking,
    );
  }
}
