import type { Vector2 } from "three";
import type { Gesture } from "../gesture";
import { forward } from "../pose";
import type { Rectangle, View } from "../view";
import { regionPose } from "./regions";

/** Drawing a region that the view then frames at its own depth, keeping the direction. */
export class RegionDrag implements Gesture {
  private ends: { from: Vector2; to: Vector2 } | null = null;

  constructor(
    private readonly view: View,
    /** The region as it is drawn, in pixels of the view; null once it is done. */
    private readonly drawn: (box: Rectangle | null) => void,
  ) {}

  move(from: Vector2, to: Vector2): void {
    this.ends = { from: this.ends?.from ?? from.clone(), to };
    this.drawn(this.view.rectangle(this.ends.from, to));
  }

  end(broken: boolean): void {
    this.drawn(null);
    if (broken || !this.ends) return;
    const { navigation } = this.view;
    const { pose, pivot } = navigation;
    const next = regionPose(pose, this.ends.from, this.ends.to, {
      rayAt: (at) => this.view.camera.ray(at),
      pointAt: (at) => this.view.hitAt(at)?.point ?? null,
      reachM: pivot.clone().sub(pose.eye).dot(forward(pose)),
    });
    if (next) navigation.go(next, false, "zoomed to a region");
  }
}
