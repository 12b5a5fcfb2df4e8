import type { ComponentRef, Federation, View } from "../api/client";
import { fromShape, type Pose, toShape } from "../stage/pose";
import type { State } from "../stage/states";
import { cellKey, find, NO_LEVEL, numberOf, type Visibility } from "./session";

function refs(federation: Federation, components: Iterable<number>): ComponentRef[] {
  const out: ComponentRef[] = [];
  for (const component of components) {
    const found = find(federation, component);
    if (found) out.push({ model: found.model.id, global_id: found.globalId });
  }
  return out;
}

/** Everything a viewpoint keeps of the present view, by names that outlive a new reading. */
export function toView(
  federation: Federation,
  pose: Pose,
  visibility: Visibility,
  picked: readonly number[],
): View {
  const of = (state: State) =>
    refs(
      federation,
      [...visibility.components].filter(([, s]) => s === state).map(([component]) => component),
    );
  const alternatives: Record<string, string> = {};
  for (const model of federation.models) {
    if (model.alternative_what && model.stands) alternatives[model.alternative_what] = model.name;
  }
  return {
    pose: toShape(pose),
    origin_m: federation.origin_m,
    cells: [...visibility.cells]
      .filter(([, state]) => state !== "shown")
      .map(([key, state]) => {
        const [level, discipline] = key.split("/").map(Number) as [number, number];
        return {
          level: federation.levels[level]?.name ?? null,
          discipline: federation.disciplines[discipline]?.code ?? "",
          state,
        };
      }),
    shown: of("shown"),
    hidden: of("hidden"),
    faded: of("faded"),
    picked: refs(federation, picked),
    alternatives,
  };
}

/** A kept view in the terms of the present federation, and how many of its components are gone. */
export function fromView(federation: Federation, view: View) {
  let missing = 0;
  const numbers = (list: readonly ComponentRef[] | undefined): number[] => {
    const found = (list ?? []).map((ref) => numberOf(federation, ref.model, ref.global_id));
    missing += found.filter((n) => n < 0).length;
    return found.filter((n) => n >= 0);
  };
  const components = new Map<number, State>();
  for (const state of ["shown", "hidden", "faded"] as const) {
    for (const component of numbers(view[state])) components.set(component, state);
  }
  const cells = new Map<string, State>();
  for (const cell of view.cells ?? []) {
    const level = cell.level === null ? NO_LEVEL : federation.levels.findIndex((l) => l.name === cell.level);
    const discipline = federation.disciplines.findIndex((d) => d.code === cell.discipline);
    if (discipline >= 0 && (level >= 0 || cell.level === null))
      cells.set(cellKey(level, discipline), cell.state);
  }
  const pose = fromShape(view.pose);
  // The project's origin moves when its models do; the view stays where it was in the world.
  view.origin_m.forEach((was, axis) => {
    const shift = was - (federation.origin_m[axis] ?? 0);
    pose.eye.setComponent(axis, pose.eye.getComponent(axis) + shift);
    pose.target.setComponent(axis, pose.target.getComponent(axis) + shift);
  });
  const picked = numbers(view.picked);
  return { pose, visibility: { cells, components } satisfies Visibility, picked, missing };
}
