import { Group, type Sprite, type Vector3 } from "three";
import { tone } from "../../style/tone";
import type { SnapKind } from "../geometry/snapping";
import type { Frame, Layer } from "./layer";
import { markOf } from "./painted";

const PIXELS = 96;
/** So large a mark is on the screen. */
const PIVOT_PX = 38;
const SNAP_PX = 24;

type Draw = (pen: CanvasRenderingContext2D, size: number) => void;

/** What a mark is made of, outlined in paper so that it stands before anything. */
function sprite(draw: Draw): Sprite {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = PIXELS;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.lineJoin = "miter";
    for (const [colour, width] of [
      [tone.paper, 15],
      [tone.ink, 7],
    ] as const) {
      pen.strokeStyle = colour;
      pen.lineWidth = width;
      pen.beginPath();
      draw(pen, PIXELS);
      pen.stroke();
    }
  }
  const mark = markOf(canvas, 10);
  mark.visible = false;
  return mark;
}

function ring(pen: CanvasRenderingContext2D, size: number, radius: number): void {
  pen.moveTo(size / 2 + radius, size / 2);
  pen.arc(size / 2, size / 2, radius, 0, Math.PI * 2);
}

/** Four ticks around a ring: what the view turns about. */
function pivot(filled: boolean): Draw {
  return (pen, size) => {
    const [middle, inner, outer] = [size / 2, size * 0.24, size * 0.44];
    ring(pen, size, inner);
    for (const [x, y] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      pen.moveTo(middle + x * inner, middle + y * inner);
      pen.lineTo(middle + x * outer, middle + y * outer);
    }
    if (!filled) return;
    pen.fillStyle = tone.here;
    pen.fill();
  };
}

const SNAPS: Record<SnapKind, Draw> = {
  corner: (pen, size) => pen.rect(size * 0.24, size * 0.24, size * 0.52, size * 0.52),
  middle: (pen, size) => {
    pen.moveTo(size * 0.5, size * 0.18);
    pen.lineTo(size * 0.82, size * 0.76);
    pen.lineTo(size * 0.18, size * 0.76);
    pen.closePath();
  },
  crossing: (pen, size) => {
    pen.moveTo(size * 0.2, size * 0.2);
    pen.lineTo(size * 0.8, size * 0.8);
    pen.moveTo(size * 0.8, size * 0.2);
    pen.lineTo(size * 0.2, size * 0.8);
  },
  centre: (pen, size) => {
    ring(pen, size, size * 0.26);
    ring(pen, size, size * 0.04);
  },
  axis: (pen, size) => {
    pen.moveTo(size * 0.5, size * 0.1);
    pen.lineTo(size * 0.5, size * 0.9);
    ring(pen, size, size * 0.2);
  },
  edge: (pen, size) => {
    pen.moveTo(size * 0.22, size * 0.78);
    pen.lineTo(size * 0.78, size * 0.22);
  },
  gridline: (pen, size) => {
    pen.moveTo(size * 0.5, size * 0.12);
    pen.lineTo(size * 0.5, size * 0.88);
    pen.moveTo(size * 0.32, size * 0.5);
    pen.lineTo(size * 0.68, size * 0.5);
  },
  face: (pen, size) => ring(pen, size, size * 0.14),
};

/** The marks of single points, the same size at any distance: what is turned about, and what a click will catch. */
export class PointMarks implements Layer {
  readonly name = "marks";
  readonly root = new Group();
  private readonly turning = sprite(pivot(false));
  private readonly pinned = sprite(pivot(true));
  private readonly snaps = {
    corner: sprite(SNAPS.corner),
    middle: sprite(SNAPS.middle),
    crossing: sprite(SNAPS.crossing),
    centre: sprite(SNAPS.centre),
    axis: sprite(SNAPS.axis),
    edge: sprite(SNAPS.edge),
    gridline: sprite(SNAPS.gridline),
    face: sprite(SNAPS.face),
  };
  /** The kind of point that is marked as caught; null for none. */
  caught: SnapKind | null = null;

  constructor(private readonly changed: () => void) {
    this.root.add(this.turning, this.pinned, ...Object.values(this.snaps));
  }

  /** Mark what the view turns about; null for nothing. */
  showPivot(at: Vector3 | null, pinned: boolean): void {
    for (const [mark, shown] of [
      [this.turning, at && !pinned],
      [this.pinned, at && pinned],
    ] as const) {
      mark.visible = Boolean(shown);
      if (at) mark.position.copy(at);
    }
    this.changed();
  }

  /** Mark the point that a click would catch; null for none. */
  showSnap(snap: { kind: SnapKind; point: Vector3 } | null): void {
    if (!snap && !this.caught) return;
    this.caught = snap?.kind ?? null;
    for (const [kind, mark] of Object.entries(this.snaps)) {
      mark.visible = kind === this.caught;
      if (snap) mark.position.copy(snap.point);
    }
    this.changed();
  }

  ready({ view, pixelM }: Frame): void {
    this.root.visible = view === "stage";
    for (const mark of [this.turning, this.pinned]) mark.scale.setScalar(PIVOT_PX * pixelM);
    for (const mark of Object.values(this.snaps)) mark.scale.setScalar(SNAP_PX * pixelM);
  }

  dispose(): void {
    for (const mark of [this.turning, this.pinned, ...Object.values(this.snaps)]) {
      mark.material.map?.dispose();
      mark.material.dispose();
    }
  }
}
