import type { Vector2, Vector3 } from "three";
import type { Gesture, Press } from "../gesture";
import { closed } from "../pose";
import type { Hand } from "./hand";
import { orbit, tumble } from "./moves";

const TURN_PER_HEIGHT = Math.PI;

/** Turning about a point, which keeps its place on the screen. */
export class Turning implements Gesture {
  constructor(
    private readonly hand: Hand,
    private readonly pivot: Vector3,
  ) {}

  begin(): void {
    this.hand.host.pivotShown(this.pivot);
  }

  move(from: Vector2, to: Vector2, { through }: Pick<Press, "through">): void {
    const { pose, habits, host } = this.hand;
    const { width, height } = host.size();
    const by = to.clone().sub(from);
    const yaw = (-by.x * (width / height) * TURN_PER_HEIGHT) / 2;
    const pitch = (by.y * TURN_PER_HEIGHT) / 2;
    const stood = pose.eye.clone();
    (habits.tumble ? tumble : orbit)(pose, this.pivot, yaw, pitch);
    if (!through) {
      // Where a wall ends the way, one turns on the spot.
      const way = pose.eye.clone().sub(stood);
      pose.eye.copy(stood);
      const back = this.hand.keptWay(way).way.clone().sub(way);
      pose.eye.add(way).add(back);
      pose.target.add(back);
    }
    const { eye, throughM } = closed(pose);
    pose.eye.copy(eye);
    pose.throughM = throughM;
    this.hand.moved("turned");
  }
}
