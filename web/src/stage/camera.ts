import {
  type Box3,
  OrthographicCamera,
  PerspectiveCamera,
  type Ray,
  Raycaster,
  Vector2,
  Vector3,
} from "three";
import { forward, isOpened, type Pose } from "./pose";

const NEAREST_M = 0.03;

/** A part of a view, from -1 to 1, beyond for more than is seen. */
export interface Part {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

export const WHOLE: Part = { left: -1, right: 1, bottom: -1, top: 1 };

/** The two cameras behind a pose; the angle of view is across the width. */
export class StageCamera {
  private readonly perspective = new PerspectiveCamera();
  private readonly parallel = new OrthographicCamera();
  private readonly caster = new Raycaster();
  private aspect = 1;
  private throughM = 0;
  /** By how much of a pixel a view of so many is shifted, for a sample of it. */
  private shift: { by: readonly [number, number]; width: number; height: number } | null = null;
  /** The part of a view that is drawn; null for all of it. */
  part: Part | null = null;
  current: PerspectiveCamera | OrthographicCamera = this.perspective;

  /** See from the next placing on shifted by parts of a pixel of a view of some size; null for not. */
  shiftBy(shift: StageCamera["shift"]): void {
    this.shift = shift;
  }

  setAspect(aspect: number): void {
    this.aspect = aspect;
  }

  /**
   * Stand where a pose says, with the depth range that the building needs from there. A parallel
   * view that is cut shows nothing behind its eye.
   */
  place(pose: Pose, bounds: Box3, beyondM: number | null = null, cut = false): void {
    const [nearest, reach] = this.depthRange(pose, bounds);
    const perspective = pose.projection === "perspective";
    const before = isOpened(pose) || perspective ? pose.throughM : nearest;
    const near = Math.max(cut ? Math.max(0, nearest) : nearest, before);
    // Nothing is seen farther beyond the target than is wanted.
    const limit = beyondM === null ? reach : pose.target.distanceTo(pose.eye) + beyondM;
    const far = Math.max(Math.min(reach, limit), near + NEAREST_M);
    if (perspective) {
      const half = Math.tan((pose.angleDeg * Math.PI) / 360);
      this.perspective.fov = (Math.atan(half / this.aspect) * 360) / Math.PI;
      this.perspective.aspect = this.aspect;
      this.current = this.perspective;
    } else {
      const half = pose.heightM / 2;
      this.parallel.top = half;
      this.parallel.bottom = -half;
      this.parallel.right = half * this.aspect;
      this.parallel.left = -half * this.aspect;
      this.current = this.parallel;
    }
    this.throughM = perspective ? pose.throughM : 0;
    const camera = this.current;
    camera.near = near;
    camera.far = far;
    camera.up.copy(pose.up);
    camera.position.copy(pose.eye);
    camera.lookAt(pose.target);
    this.offset(camera);
    camera.updateProjectionMatrix();
    camera.updateMatrixWorld(true);
  }

  /** Draw a part of the view alone, or shifted by a part of a pixel. */
  private offset(camera: PerspectiveCamera | OrthographicCamera): void {
    const { part, shift } = this;
    if (!part && !shift) {
      camera.clearViewOffset();
      return;
    }
    const { left, right, bottom, top } = part ?? WHOLE;
    const [wide, high] = [(right - left) / 2, (top - bottom) / 2];
    const width = shift?.width ?? 1;
    const height = shift?.height ?? (width * high) / (this.aspect * wide);
    const [x, y] = shift?.by ?? [0, 0];
    const full = { width: width / wide, height: height / high };
    const from = { x: ((left + 1) / 2) * full.width, y: ((1 - top) / 2) * full.height };
    camera.setViewOffset(full.width, full.height, from.x + x, from.y + y, width, height);
  }

  private depthRange(pose: Pose, bounds: Box3): [number, number] {
    if (bounds.isEmpty()) return [0.1, 1000];
    const f = forward(pose);
    const centre = bounds.getCenter(new Vector3());
    const radius = bounds.getSize(new Vector3()).length() / 2 + 1;
    const along = centre.clone().sub(pose.eye).dot(f);
    if (pose.projection === "parallel") return [along - radius, along + radius];
    const outside = bounds.distanceToPoint(pose.eye);
    const near = Math.max(NEAREST_M, Math.min(outside * 0.6, along - radius));
    return [Math.max(NEAREST_M, near), Math.max(along + radius, near * 4, 1)];
  }

  /** How wide a pixel of a canvas is on the model: at 1 m from the eye, or anywhere in a parallel view. */
  pixelM(pose: Pose, widthPx: number): number {
    const across =
      pose.projection === "perspective"
        ? 2 * Math.tan((pose.angleDeg * Math.PI) / 360)
        : pose.heightM * this.aspect;
    const share = this.part ? (this.part.right - this.part.left) / 2 : 1;
    return (across * share) / Math.max(1, widthPx);
  }

  /** The ray through a point of the canvas, given from -1 to 1. */
  ray(at: Vector2): Ray {
    this.caster.setFromCamera(at, this.current);
    const { ray } = this.caster;
    // A parallel view also shows what is behind its eye, as far as it is not cut.
    if (this.current === this.parallel) ray.origin.addScaledVector(ray.direction, this.parallel.near);
    else if (this.throughM > 0) {
      const along = ray.direction.dot(this.current.getWorldDirection(new Vector3()));
      ray.origin.addScaledVector(ray.direction, this.throughM / along);
    }
    return ray;
  }

  /** Look at what is looked through alone, until the pose is followed again. */
  lookAtNear(): void {
    this.current.far = this.current.near;
    this.current.near = NEAREST_M;
    this.current.updateProjectionMatrix();
  }

  /** Where a point falls on the canvas, from -1 to 1. */
  project(point: Vector3): Vector2 {
    const p = point.clone().project(this.current);
    return new Vector2(p.x, p.y);
  }
}
