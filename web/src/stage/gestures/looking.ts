import { Vector2 } from "three";
import type { Gesture } from "../gesture";
import type { Mover } from "../movers/mover";
import type { Hand } from "./hand";
import type { Cause } from "./host";

/** So far a thumb goes for full speed, in pixels. */
const THUMB_PX = 60;

/** What a way on the view is in pixels, to the right and up. */
function inPixels(hand: Hand, from: Vector2, to: Vector2): Vector2 {
  const { width, height } = hand.host.size();
  return to
    .clone()
    .sub(from)
    .multiply(new Vector2(width / 2, height / 2));
}

/** Looking around while somebody walks or flies. */
export class Looking implements Gesture {
  constructor(
    private readonly hand: Hand,
    private readonly by: Mover,
    private readonly cause: Cause,
  ) {}

  move(from: Vector2, to: Vector2): void {
    const { x, y } = inPixels(this.hand, from, to);
    this.by.look(x, y, this.hand.host.size().width, this.hand.pose);
    this.hand.moved(this.cause);
  }
}

/** The thumb that pushes the body on, from where it was put down. */
export class Thumb {
  constructor(
    readonly pointer: number,
    private readonly hand: Hand,
    private readonly by: Mover,
    private readonly start: Vector2,
  ) {}

  move(to: Vector2): void {
    const { x, y } = inPixels(this.hand, this.start, to);
    const reach = (px: number) => Math.max(-1, Math.min(1, px / THUMB_PX));
    this.by.push({ x: reach(x), y: reach(y) });
  }

  end(): void {
    this.by.push(null);
  }
}
