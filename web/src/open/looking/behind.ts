import { type Box3, Ray, Vector3 } from "three";

/** What is needed of the stage to know whether something is seen from where the eye will be. */
interface Seeing {
  navigation: { goal: { eye: Vector3; projection: "perspective" | "parallel" } };
  building: {
    boxesOf(components: readonly number[]): ReadonlyMap<number, Box3>;
    first(ray: Ray): { component: number } | null;
  };
}

const SHARES = [0.5, 0.15, 0.85] as const;

/** Whether something else stands before a component wherever along its middle one looks, from where the eye will be. */
export function isBehind({ navigation, building }: Seeing, component: number): boolean {
  const box = building.boxesOf([component]).get(component);
  const { eye, projection } = navigation.goal;
  if (!box || projection === "parallel") return false;
  const [middle, size] = [box.getCenter(new Vector3()), box.getSize(new Vector3())];
  const points = [0, 1, 2].flatMap((axis) =>
    SHARES.map((share) =>
      middle.clone().setComponent(axis, middle.getComponent(axis) + (share - 0.5) * size.getComponent(axis)),
    ),
  );
  return points.every((point) => {
    const hit = building.first(new Ray(eye.clone(), point.sub(eye).normalize()));
    return hit !== null && hit.component !== component;
  });
}
