import { Box3, type Ray, Vector3 } from "three";
import { expect, test } from "vitest";
import { isBehind } from "./behind";

const BOX = new Box3(new Vector3(-1, 9, 0), new Vector3(1, 10, 2));

const seeing = (
  first: (ray: Ray) => { component: number } | null,
  projection: "perspective" | "parallel",
) => ({
  navigation: { goal: { eye: new Vector3(0, 0, 1), projection } },
  building: { boxesOf: () => new Map([[7, BOX]]), first },
});

test("what stands before all of it hides it", () => {
  expect(
    isBehind(
      seeing(() => ({ component: 3 }), "perspective"),
      7,
    ),
  ).toBe(true);
});

test("it is not hidden where one sees some of it, or through to nothing", () => {
  const some = (ray: Ray) => ({ component: ray.direction.x > 0.05 ? 7 : 3 });
  expect(isBehind(seeing(some, "perspective"), 7)).toBe(false);
  expect(
    isBehind(
      seeing(() => null, "perspective"),
      7,
    ),
  ).toBe(false);
});

test("nothing is said of a parallel view, or of what has no shape", () => {
  expect(
    isBehind(
      seeing(() => ({ component: 3 }), "parallel"),
      7,
    ),
  ).toBe(false);
  const nothing = seeing(() => ({ component: 3 }), "perspective");
  expect(isBehind({ ...nothing, building: { ...nothing.building, boxesOf: () => new Map() } }, 7)).toBe(
    false,
  );
});
