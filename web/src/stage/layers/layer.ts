import type { Object3D, Vector3 } from "three";
import type { Clips } from "../clips";
import type { Pose } from "../pose";
import type { ViewKind } from "../view";

/** How the building is drawn: shaded with edges, shaded alone, lines with what they hide taken away, see-through. */
export type DrawingStyle = "edges" | "plain" | "lines" | "clear";

/**
 * What is about to be drawn: a view's pose, how wide a pixel is on the model, in which style, whether with edges, what cuts it, how
 * large it is in CSS pixels and where points of the model are in it.
 */
export interface Frame {
  view: ViewKind;
  pose: Pose;
  pixelM: number;
  style: DrawingStyle;
  edges: boolean;
  clips: Clips;
  size: { width: number; height: number };
  pixelOf(point: Vector3): { x: number; y: number; before: boolean };
}

/** Everything is on the first layer; lines are on this one too. */
export const LINES_LAYER = 1;
/** Surfaces that stand before what is behind them are on this one too. */
export const SURFACES_LAYER = 2;

/** Something that is drawn on the stage. */
export interface Layer {
  readonly root: Object3D;
  /** Make ready for a frame. */
  ready?(frame: Frame): void;
  /** Draw surfaces in place of colours, on `SURFACES_LAYER`: which way they look, and whose they are; or colours again. */
  drawSurfaces?(instead: boolean): void;
  dispose(): void;
}
