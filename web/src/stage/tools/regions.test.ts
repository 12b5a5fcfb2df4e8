import { Box3, Vector2, Vector3 } from "three";
import { expect, test } from "vitest";
import { StageCamera } from "../camera";
import { forward, type Pose } from "../pose";
import { regionPose } from "./regions";

const WALL_Y = 20;

function setUp(projection: Pose["projection"]) {
  const pose: Pose = {
    eye: new Vector3(0, 0, 5),
    target: new Vector3(0, 10, 5),
    up: new Vector3(0, 0, 1),
    projection,
    angleDeg: 60,
    heightM: 12,
    throughM: 0,
  };
  const camera = new StageCamera();
  camera.setAspect(1.6);
  const bounds = new Box3(new Vector3(-50, -50, -5), new Vector3(50, 50, 20));
  camera.place(pose, bounds);
  const rayAt = (at: Vector2) => camera.ray(at).clone();
  const pointAt = (at: Vector2) => {
    const ray = rayAt(at);
    return ray.at((WALL_Y - ray.origin.y) / ray.direction.y, new Vector3());
  };
  return { pose, camera, bounds, seen: { rayAt, pointAt, reachM: 10 } };
}

test.each(["perspective", "parallel"] as const)("what is in the region fills the frame, %s", (projection) => {
  const { pose, camera, bounds, seen } = setUp(projection);
  const [from, to] = [new Vector2(0.1, 0.2), new Vector2(0.5, 0.6)];
  const corners = [from, to].map((at) => seen.pointAt(at));
  const next = regionPose(pose, from, to, seen);
  if (!next) throw new Error("no pose");
  expect(forward(next).distanceTo(forward(pose))).toBeLessThan(1e-9);
  camera.place(next, bounds);
  const [a, b] = corners.map((corner) => camera.project(corner));
  expect([a?.x, a?.y, b?.x, b?.y].map((v) => Number(v?.toFixed(6)))).toEqual([-1, -1, 1, 1]);
});

test("where nothing is seen the pivot's depth counts", () => {
  const { pose, seen } = setUp("perspective");
  const next = regionPose(pose, new Vector2(-0.5, -0.5), new Vector2(0.5, 0.5), {
    ...seen,
    pointAt: () => null,
  });
  expect(next?.target.toArray().map((v) => Number(v.toFixed(6)))).toEqual([0, 10, 5]);
  expect(next?.eye.y).toBeCloseTo(5, 9);
});

test("a slip of the hand is no region", () => {
  const { pose, seen } = setUp("perspective");
  expect(regionPose(pose, new Vector2(0, 0), new Vector2(0.001, 0.001), seen)).toBeNull();
});
