import type { Object3D } from "three";
import type { Pose } from "../pose";
import type { ViewKind } from "../view";

/** What is about to be drawn: a view's pose, how wide a pixel is on the model, and whether edges are wanted. */
export interface Frame {
  view: ViewKind;
  pose: Pose;
  pixelM: number;
  edges: boolean;
}

/** Something that is drawn on the stage. */
export interface Layer {
  readonly root: Object3D;
  /** Make ready for a frame. */
  ready?(frame: Frame): void;
  dispose(): void;
}
