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

/** The two cameras behind a pose; the angle of view is across the width. */
export class StageCamera {
  private readonly perspective = new PerspectiveCamera();
  private readonly parallel = new OrthographicCamera();
  private readonly caster = new Raycaster();
  private aspect = 1;
  private throughM = 0;
  /** By how much of a pixel a view of so many is shifted, for a sample of it. */
  private shift: { by: readonly [number, number]; width: number; height: number } | null = null;
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
    if (this.shift) {
      const { by, width, height } = this.shift;
      camera.setViewOffset(width, height, by[0], by[1], width, height);
    } else camera.clearViewOffset();
    camera.updateProjectionMatrix();
    camera.updateMatrixWorld(true);
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
    return across / Math.max(1, widthPx);
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
