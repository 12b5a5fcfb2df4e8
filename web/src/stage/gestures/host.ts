import type { Vector2, Vector3 } from "three";
import type { Gesture } from "../gesture";
import type { Pose } from "../pose";

/** What navigation needs of the view that it moves. */
export interface NavigationHost {
  /** The view's size in CSS pixels; its top left is the element's. */
  size(): { width: number; height: number };
  /** Whether drags may turn the view; otherwise they move it as paper is moved. */
  turns: boolean;
  /** What a tool in hand makes of a drag with the left button; null where it leaves drags alone. */
  toolDrag(at: Vector2): Gesture | null;
  /** The first solid point under a place on the canvas (-1 to 1), or null. */
  pointAt(at: Vector2): Vector3 | null;
  /** The ray's direction and origin at a place on the canvas. */
  rayAt(at: Vector2): { origin: Vector3; direction: Vector3 };
  /** Where to turn about when nothing is under the cursor. */
  fallbackPivot(): Vector3;
  /** The centre of what is picked, or null. */
  pickedCentre(): Vector3 | null;
  moved(pose: Pose): void;
  pivotShown(pivot: Vector3 | null): void;
  clicked(at: Vector2, add: boolean): void;
  /** It was asked what can be done there: by a right click, or a long touch. */
  asked(at: Vector2): void;
  /** Clicked twice, to go there. */
  entered(at: Vector2): void;
  hovered(at: Vector2 | null): void;
  stopped(): void;
  /** How far it is from one point to another before something that is shown is met, up to there. */
  clear(from: Vector3, to: Vector3): number;
  /** The eye was kept inside the room it is in, at a point before its wall. */
  kept(at: Vector3): void;
  /** Something else took the eye away from who moved it by keys. */
  moverLeft(): void;
}

/** How somebody likes to move; none of it changes where things are. */
export interface Habits {
  /** What the wheel button does; Shift with it does the other. */
  wheelButton: "pan" | "orbit";
  /** Two fingers on a trackpad pan; a mouse's wheel zooms. */
  device: "mouse" | "trackpad";
  /** Go at once instead of gliding. */
  instant: boolean;
  /** Moving does not leave the room that the eye is in. */
  keepInside: boolean;
  /** Turn freely, over the top as well; otherwise verticals stay upright. */
  tumble: boolean;
}

/** What brought the eye where it is. */
export type Cause = "turned" | "panned" | "zoomed" | "zoomed to a region" | "went" | "walked" | "flew";
