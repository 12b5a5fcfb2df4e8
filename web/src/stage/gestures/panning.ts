import type { Vector2, Vector3 } from "three";
import type { Gesture, Press } from "../gesture";
import type { Hand } from "./hand";
import { shiftOf } from "./moves";

/** Moving so that a point goes along with the cursor. */
export class Panning implements Gesture {
  constructor(
    private readonly hand: Hand,
    private readonly anchor: Vector3,
  ) {}

  move(from: Vector2, to: Vector2, { through }: Pick<Press, "through">): void {
    const { pose, host } = this.hand;
    const way = shiftOf(pose, this.anchor, host.rayAt(from), host.rayAt(to));
    const gone = through ? way : this.hand.keptWay(way).way;
    pose.eye.add(gone);
    pose.target.add(gone);
    this.hand.moved("panned");
  }
}
