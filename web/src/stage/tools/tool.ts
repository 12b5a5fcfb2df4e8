import type { Vector2, Vector3 } from "three";
import type { Segment, SnapKind } from "../geometry/snapping";
import type { Gesture } from "../gesture";
import type { View } from "../view";

/** Where a tool was used: a point of a component, about the origin. */
export interface Aim {
  component: number;
  point: Vector3;
  /** The way the face looks that was clicked, towards the eye. */
  normal: Vector3;
  /** What of the component the point is; a point of its face, unless exact points are meant. */
  kind: SnapKind;
  /** The ends of the edge or line that the point is of. */
  ends?: Segment;
}

/** What is in somebody's hand instead of picking and turning, until it is put away. */
export interface Tool {
  readonly name: string;
  /** What to do with it, in a sentence. */
  readonly prompt: string;
  /** Exact points are meant: corners, edges and grid crossings catch the cursor, and are marked before the click. */
  readonly exact?: boolean;
  /** Which kinds of exact points it takes, beside points of faces; all of them where this is not said. */
  readonly takes?: readonly SnapKind[];
  /** Its points are counted from the present origin; it is put away where that changes. */
  readonly bound?: boolean;
  /** Words follow its click or drag: what is typed early belongs to these, and to no key of the page. */
  readonly writes?: boolean;
  /** Takes a drag with the left button, or leaves it; everything else moves as always. */
  down?(view: View): Gesture | null;
  /** The cursor is over something, or over nothing. */
  hover?(aim: Aim | null): void;
  /** Takes a click at a place of a view, instead of picking. */
  click?(aim: Aim | null, at: Vector2, view: View): void;
  /** Ends what has been begun, and goes on with the next; whether there was anything. */
  finish?(): boolean;
  /** It was put away. */
  cancel?(): void;
}
