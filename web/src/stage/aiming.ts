import type { Vector2 } from "three";
import type { Building } from "./building";
import type { Hit } from "./geometry/picking";
import { type Catches, rayTo, type Sheet, type Snap, type SnapKind } from "./geometry/snapping";
import type { PointMarks } from "./layers/pointMarks";
import type { Aim, Tool } from "./tools/tool";
import type { View } from "./view";

/** What is met at all but so many of nine places over the view fills it; it is not coloured under the cursor. */
const MOST_OTHERS = 2;
const PLACES = [-0.7, 0, 0.7];

/** What is meant by the cursor: the component under it, and the exact point that it catches. */
export class Aiming {
  /** What is in hand. */
  tool: Tool | null = null;
  /** What of a component the cursor catches, once it is known; else what is drawn of it. */
  catches: (component: number) => Catches | null = () => null;

  constructor(
    private readonly building: Building,
    private readonly marks: PointMarks,
  ) {}

  /** Use the tool in hand on what was clicked; false where there is none that takes clicks. */
  click(view: View, hit: Hit | null, at: Vector2): boolean {
    if (!this.tool?.click) return false;
    this.tool.click(hit && this.aim(view, hit), at, view);
    return true;
  }

  /** Mark what is under the cursor, and what a click would catch; what that is. */
  hover(view: View, hit: Hit | null, main: boolean): SnapKind | null {
    this.building.mark(hit && this.fills(view, hit.component) ? -1 : (hit?.component ?? -1));
    const aim = hit && this.tool && (this.tool.exact || this.tool.hover) ? this.aim(view, hit) : null;
    const exact = this.tool?.exact ? aim : null;
    this.marks.showSnap(main ? exact : null);
    this.tool?.hover?.(aim);
    return exact?.kind ?? null;
  }

  private aim(view: View, hit: Hit): Aim {
    const normal = hit.normal.clone();
    if (normal.dot(view.sightTo(hit.point)) > 0) normal.negate();
    const snap: Snap = this.tool?.exact ? this.snapped(view, hit) : { kind: "face", point: hit.point };
    return { component: hit.component, normal, ...snap };
  }

  private snapped(view: View, hit: Hit): Snap {
    const ray = rayTo(hit.point, view.sightTo(hit.point), hit.distance);
    const sheet: Sheet = { ray, pixelOf: (point) => view.pixelOf(point), takes: this.tool?.takes };
    return this.building.snapped(hit, this.catches(hit.component), sheet);
  }

  /** Whether a component fills a view, so that its colour would be all that is seen. */
  private fills(view: View, component: number): boolean {
    const { width, height } = view.size;
    let others = 0;
    for (const x of PLACES) {
      for (const y of PLACES) {
        const hit = view.hitAtPixel(((x + 1) / 2) * width, ((y + 1) / 2) * height);
        if (hit?.component !== component && ++others > MOST_OTHERS) return false;
      }
    }
    return true;
  }
}
