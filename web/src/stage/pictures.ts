import type { Building } from "./building";
import type { Part } from "./camera";
import type { Layer } from "./layers/layer";
import type { PointMarks } from "./layers/pointMarks";
import type { Renderer } from "./renderer";
import type { Rectangle, View, ViewKind } from "./view";

/** A part of a view that is so many times its height wide. */
export type Framed = Part & { aspect: number };

/** What pictures need of the stage. */
export interface PicturesHost {
  readonly renderer: Renderer;
  readonly building: Building;
  readonly marks: PointMarks;
  /** What is drawn over the building. */
  readonly layers: readonly Layer[];
  readonly main: View;
  /** Where the views lie on the canvas. */
  readonly places: Record<ViewKind, Rectangle>;
  /** Draw all views as the page has them, on a canvas of the page's size. */
  putBack(): void;
  draw(view: View, inFull: boolean, sample: number | null): void;
}

/** Makes pictures of what is seen: to be kept with a view, and small ones for places on the Trail. */
export class Pictures {
  constructor(private readonly host: PicturesHost) {}

  /**
   * The present picture of the stage as PNG, at most `width` wide; in full, if not said otherwise. Of a part of what is
   * seen, or more than it, exactly so wide.
   */
  ofStage(width: number, inFull = true, part: Framed | null = null): string {
    const { renderer, places, marks, main } = this.host;
    const { pinnedAt } = main.navigation;
    marks.showPivot(pinnedAt, pinnedAt !== null);
    main.sketching = false;
    return this.unmarked(() => {
      if (part) this.put(part, width);
      try {
        for (let number = 0; number < renderer.samples; number++) this.host.draw(main, inFull, number);
        return renderer.picture(places.stage, width, "image/png");
      } finally {
        if (part) this.putBack();
      }
    });
  }

  /**
   * A small picture of a place, of what nothing lies over (shares of the view's sides that are left out); drawn anew
   * only where the cursor has marked something in it.
   */
  ofPlace(width: number, view: View, covered: Record<"left" | "right" | "top" | "bottom", number>): string {
    const { renderer, places, building } = this.host;
    const place = places[view.kind];
    const part = {
      x: place.x + covered.left * place.width,
      y: place.y + covered.top * place.height,
      width: (1 - covered.left - covered.right) * place.width,
      height: (1 - covered.top - covered.bottom) * place.height,
    };
    const small = () => renderer.picture(part, width, "image/jpeg");
    if (building.states.hovered < 0) return small();
    return this.unmarked(() => {
      this.host.draw(this.host.main, false, null);
      return small();
    });
  }

  /** Make the canvas one of a part of the view, so many pixels wide. */
  private put(part: Framed, widthPx: number): void {
    const { renderer, places } = this.host;
    const { width } = places.stage;
    const [wide, high] = [(part.right - part.left) / 2, (part.top - part.bottom) / 2];
    const framed = width * wide;
    places.stage = { x: 0, y: 0, width: framed, height: (framed / part.aspect) * (high / wide) };
    this.host.main.part = part;
    renderer.resizeFor(places.stage, widthPx / framed);
  }

  /** Draw what is seen again, on the canvas as the page has it. */
  private putBack(): void {
    this.host.main.part = null;
    this.host.renderer.onScreen();
    this.host.putBack();
  }

  /** Do something while nothing is marked as being under the cursor. */
  private unmarked<T>(work: () => T): T {
    const { building, layers } = this.host;
    const { hovered } = building.states;
    building.states.setHovered(-1);
    for (const layer of layers) layer.leaveOut?.(true);
    try {
      return work();
    } finally {
      for (const layer of layers) layer.leaveOut?.(false);
      building.mark(hovered);
    }
  }
}
