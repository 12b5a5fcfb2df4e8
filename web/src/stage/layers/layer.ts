import type { Object3D, Vector3 } from "three";
import type { Clips } from "../clips";
import type { Gesture } from "../gesture";
import type { Pose } from "../pose";
import type { ViewKind } from "../view";
import type { SharedUniforms } from "./materials";

/** How the building is drawn: shaded with edges, shaded alone, lines with what they hide taken away, see-through. */
export type DrawingStyle = "edges" | "plain" | "lines" | "clear";

/** A rectangle of a view, in CSS pixels, by its middle. */
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/**
 * What is about to be drawn: a view's pose, how wide a pixel is on the model, in which style, whether with edges, what cuts it, how
 * large it is in CSS pixels and where points of the model are in it.
 */
export interface Frame {
  view: ViewKind;
  pose: Pose;
  pixelM: number;
  /** How many times as large as usual signs and letters are. */
  letters: number;
  style: DrawingStyle;
  edges: boolean;
  clips: Clips;
  size: { width: number; height: number };
  pixelOf(point: Vector3): { x: number; y: number; before: boolean };
  /** What signs cover: words that can stand elsewhere keep clear of it. */
  covered: readonly Box[];
}

/** Everything is on the first layer; lines are on this one too. */
export const LINES_LAYER = 1;
/** Surfaces that stand before what is behind them are on this one too. */
export const SURFACES_LAYER = 2;

/** Something that is drawn on the stage. */
export interface Layer {
  readonly name: string;
  readonly root: Object3D;
  /** Whether it is left out of pictures, which are kept for longer than it stays where it is. */
  leaveOut?(left: boolean): void;
  /** Take a click on the stage's own view, in CSS pixels; whether it was on this layer. */
  click?(x: number, y: number): boolean;
  /** What a drag from there does, or null where there is nothing of this layer to drag. */
  grip?(x: number, y: number): Gesture | null;
  /** What its signs cover in a frame; asked of all layers before any is made ready. */
  covers?(frame: Omit<Frame, "covered">): readonly Box[];
  /** Make ready for a frame. */
  ready?(frame: Frame): void;
  /** Draw surfaces in place of colours, on `SURFACES_LAYER`: which way they look, and whose they are; or colours again. */
  drawSurfaces?(instead: boolean): void;
  dispose(): void;
}

/** How a layer is made: with what it calls when it changed, and what all materials share. */
export type LayerKind<L extends Layer> = new (changed: () => void, shared: SharedUniforms) => L;
