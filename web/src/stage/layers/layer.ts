import type { Object3D, Vector3 } from "three";
import type { Clips } from "../clips";
import type { Pose } from "../pose";
import type { ViewKind } from "../view";

/**
 * What is about to be drawn: a view's pose, how wide a pixel is on the model, whether edges are wanted, what cuts it, how
 * large it is in CSS pixels and where points of the model are in it.
 */
export interface Frame {
  view: ViewKind;
  pose: Pose;
  pixelM: number;
  edges: boolean;
  clips: Clips;
  size: { width: number; height: number };
  pixelOf(point: Vector3): { x: number; y: number; before: boolean };
}

/** Something that is drawn on the stage. */
export interface Layer {
  readonly root: Object3D;
  /** Make ready for a frame. */
  ready?(frame: Frame): void;
  dispose(): void;
}
