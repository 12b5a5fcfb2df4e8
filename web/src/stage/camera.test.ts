import { Box3, Vector2, Vector3 } from "three";
import { beforeEach, describe, expect, test } from "vitest";
import { StageCamera } from "./camera";
import type { Pose } from "./pose";

const BOUNDS = new Box3(new Vector3(-20, -15, -4), new Vector3(20, 15, 12));

function pose(more: Partial<Pose> = {}): Pose {
  return {
    eye: new Vector3(0, -60, 20),
    target: new Vector3(0, 0, 4),
    up: new Vector3(0, 0, 1),
    projection: "perspective",
    angleDeg: 60,
    heightM: 30,
    throughM: 0,
    ...more,
  };
}

let camera: StageCamera;
beforeEach(() => {
  camera = new StageCamera();
  camera.setAspect(1.6);
});

describe("the angle of view", () => {
  test("is across the width whatever the shape of the view", () => {
    for (const aspect of [0.5, 1, 1.6, 3]) {
      camera.setAspect(aspect);
      camera.place(pose(), BOUNDS);
      const [left, right] = [
        camera.ray(new Vector2(-1, 0)).direction.clone(),
        camera.ray(new Vector2(1, 0)).direction,
      ];
      expect((left.angleTo(right) * 180) / Math.PI).toBeCloseTo(60);
    }
  });

  test("says how wide a pixel is at a metre, and anywhere in a parallel view", () => {
    expect(camera.pixelM(pose(), 1000)).toBeCloseTo((2 * Math.tan(Math.PI / 6)) / 1000);
    expect(camera.pixelM(pose({ projection: "parallel" }), 1000)).toBeCloseTo((30 * 1.6) / 1000);
  });
});

describe.each(["perspective", "parallel"] as const)("a %s view", (projection) => {
  test("a ray goes through what is projected to its place", () => {
    camera.place(pose({ projection }), BOUNDS);
    for (const point of [new Vector3(3, 2, 1), new Vector3(-12, 9, 8), new Vector3(0, 0, 4)]) {
      const at = camera.project(point);
      expect(camera.ray(at).distanceToPoint(point)).toBeLessThan(1e-6);
    }
    expect(camera.project(pose().target).length()).toBeLessThan(1e-9);
  });

  test("the whole building is within its depths", () => {
    for (const eye of [new Vector3(0, -60, 20), new Vector3(5, 5, 3), new Vector3(300, 200, 90)]) {
      camera.place(pose({ projection, eye }), BOUNDS);
      const { near, far } = camera.current;
      const ahead = new Vector3(0, 0, 4).sub(eye).normalize();
      const depths = [BOUNDS.min, BOUNDS.max].map((corner) => corner.clone().sub(eye).dot(ahead));
      expect(far).toBeGreaterThan(Math.max(...depths));
      if (projection === "parallel") expect(near).toBeLessThan(Math.min(...depths));
      else expect(near).toBeGreaterThan(0);
    }
  });

  test("a limit beyond the target is kept", () => {
    const p = pose({ projection });
    camera.place(p, BOUNDS, 5);
    expect(camera.current.far).toBeCloseTo(p.eye.distanceTo(p.target) + 5);
  });
});

test("a parallel view shows what is behind its eye unless it is cut", () => {
  const inside = pose({
    projection: "parallel",
    eye: new Vector3(0, 0, 1.2),
    target: new Vector3(0, 0, 0),
    up: new Vector3(0, 1, 0),
  });
  camera.place(inside, BOUNDS);
  expect(camera.current.near).toBeLessThan(0);
  expect(camera.ray(new Vector2()).origin.z).toBeGreaterThan(12);
  camera.place(inside, BOUNDS, null, true);
  expect(camera.current.near).toBe(0);
  expect(camera.ray(new Vector2()).origin.z).toBeCloseTo(1.2);
});

test("what is looked through is neither drawn nor picked, and drawn alone on request", () => {
  // The eye stands behind a room's wall, within the building.
  const p = pose({ throughM: 8, eye: new Vector3(0, -10, 3) });
  camera.place(p, BOUNDS);
  expect(camera.current.near).toBe(8);
  for (const at of [new Vector2(), new Vector2(0.9, -0.7)]) {
    const depth = camera.ray(at).origin.clone().sub(p.eye).dot(p.target.clone().sub(p.eye).normalize());
    expect(depth).toBeCloseTo(8);
  }
  camera.lookAtNear();
  expect(camera.current.far).toBe(8);
  expect(camera.current.near).toBeLessThan(0.1);
  camera.place(pose({ throughM: 8, projection: "parallel" }), BOUNDS);
  expect(camera.current.near).not.toBe(8);
});

test("without a building there is something to see all the same", () => {
  camera.place(pose(), new Box3());
  expect(camera.current.near).toBeLessThan(camera.current.far);
});
