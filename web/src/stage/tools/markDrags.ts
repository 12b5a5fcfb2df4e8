import { Plane, Vector2, Vector3 } from "three";
import type { Gesture } from "../gesture";
import { forward } from "../pose";
import type { View } from "../view";

/** How a drag becomes a shape: by two opposite corners, by both ends, or by all of its way. */
export type Drawing = "corners" | "round" | "ends" | "way";

/** A hand that moved less than this share of the frame is still where it was. */
const STILL = 0.004;
const ROUND = 48;

/** Where lines of sight meet the plane through a point, square to the view. */
export function onPlane(view: View, through: Vector3, normal: Vector3) {
  const plane = new Plane().setFromNormalAndCoplanarPoint(normal, through);
  return (at: Vector2): Vector3 | null => view.camera.ray(at).intersectPlane(plane, new Vector3());
}

/** The point under a place of a view, else one as deep as what the view turns about. */
export function surfaceAt(view: View, at: Vector2): Vector3 {
  const hit = view.hitAt(at);
  if (hit) return hit.point.clone();
  const { pose, pivot } = view.navigation;
  const depth = Math.max(0.5, pivot.clone().sub(pose.eye).dot(forward(pose)));
  const middle = pose.eye.clone().addScaledVector(forward(pose), depth);
  return onPlane(view, middle, forward(pose))(at) ?? middle;
}

/** What a drag shows of a shape before the core has drawn it. */
export function outlined(drawing: Drawing, way: readonly Vector2[]): Vector2[] {
  const [a, b] = [way[0], way.at(-1)];
  if (!a || !b) return [];
  if (drawing === "corners") return [a, new Vector2(b.x, a.y), b, new Vector2(a.x, b.y), a];
  if (drawing === "round")
    return Array.from({ length: ROUND + 1 }, (_, k) => {
      const turn = (k / ROUND) * Math.PI * 2;
      return new Vector2(
        (a.x + b.x) / 2 + (Math.cos(turn) * (b.x - a.x)) / 2,
        (a.y + b.y) / 2 + (Math.sin(turn) * (b.y - a.y)) / 2,
      );
    });
  return [...way];
}

/** Drawing a shape over the view, in the plane of the surface where it was begun. */
export class DrawnByHand implements Gesture {
  private way: Vector2[] = [];
  private through: Vector3 | null = null;

  constructor(
    private readonly view: View,
    private readonly drawing: Drawing,
    /** What is drawn so far, about the origin; empty once it is done. */
    private readonly live: (points: readonly Vector3[]) => void,
    private readonly done: (way: readonly Vector2[], through: Vector3) => void,
  ) {}

  move(from: Vector2, to: Vector2): void {
    this.through ??= surfaceAt(this.view, from);
    if (!this.way.length) this.way.push(from.clone());
    const last = this.way.at(-1);
    if (this.drawing !== "way") this.way = [this.way[0] ?? from, to.clone()];
    else if (!last || last.distanceTo(to) > STILL) this.way.push(to.clone());
    const there = onPlane(this.view, this.through, forward(this.view.navigation.pose));
    this.live(outlined(this.drawing, this.way).flatMap((at) => there(at) ?? []));
  }

  end(broken: boolean): void {
    this.live([]);
    if (!broken && this.through && this.way.length > 1) this.done(this.way, this.through);
  }
}

/** Dragging a markup in its plane, or one of its points. */
export class MarkupDrag implements Gesture {
  private ends: { from: Vector2; to: Vector2 } | null = null;

  constructor(
    private readonly view: View,
    private readonly held: { points: readonly Vector3[]; normal: Vector3; handle: number | null },
    private readonly live: (points: readonly Vector3[]) => void,
    private readonly done: (from: Vector2, to: Vector2) => void,
  ) {}

  move(from: Vector2, to: Vector2): void {
    this.ends = { from: this.ends?.from ?? from.clone(), to: to.clone() };
    const { points, normal, handle } = this.held;
    const [first] = points;
    if (!first) return;
    const there = onPlane(this.view, first, normal);
    const [a, b] = [there(this.ends.from), there(this.ends.to)];
    if (!a || !b) return;
    const by = b.sub(a);
    this.live(points.map((p, k) => (handle === null || handle === k ? p.clone().add(by) : p)));
  }

  end(broken: boolean): void {
    this.live([]);
    if (!broken && this.ends) this.done(this.ends.from, this.ends.to);
  }
}
