import { Vector3 } from "three";

/** A way as it is walked: where the feet are after so many metres, and which way they go. */
export class Tour {
  private readonly upTo: number[] = [0];

  constructor(private readonly points: readonly Vector3[]) {
    for (let k = 1; k < points.length; k++) {
      const [a, b] = [points[k - 1], points[k]];
      this.upTo.push((this.upTo[k - 1] ?? 0) + (a && b ? a.distanceTo(b) : 0));
    }
  }

  get lengthM(): number {
    return this.upTo.at(-1) ?? 0;
  }

  /** The feet after so many metres. */
  at(metres: number): Vector3 {
    const along = Math.max(0, Math.min(this.lengthM, metres));
    let k = this.upTo.findIndex((upTo) => upTo >= along);
    if (k <= 0) k = Math.min(1, this.points.length - 1);
    const [a, b] = [this.points[k - 1] ?? this.points[0], this.points[k]];
    if (!a || !b) return this.points[0]?.clone() ?? new Vector3();
    const [from, to] = [this.upTo[k - 1] ?? 0, this.upTo[k] ?? 0];
    return a.clone().lerp(b, to > from ? (along - from) / (to - from) : 0);
  }

  /** Where one looks while walking: a little ahead, so that corners are taken smoothly. */
  ahead(metres: number): Vector3 {
    const [here, there] = [this.at(metres), this.at(Math.min(this.lengthM, metres + 1.6))];
    const way = there.sub(here);
    if (way.lengthSq() > 1e-6) return way.normalize();
    return this.at(this.lengthM)
      .sub(this.at(this.lengthM - 0.5))
      .normalize();
  }
}
