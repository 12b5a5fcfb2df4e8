import type { Shapes } from "../../api/client";
import { ATTRIBUTES } from "../../api/constants";
import { plainName, plainWithin } from "../plainName";
import type { Selector } from "../visibility/selectors";
import type { Condition } from "./conditions";

export type Sum = Shapes["ScheduleSum"];

/** A group of the register: what it shares with those beside it up to its step, and what is in it. */
export interface Group {
  /** Its names from the first step on. */
  path: readonly string[];
  /** What it is called in its step. */
  says: string;
  count: number;
  sums: readonly Sum[];
  inner: readonly Group[];
  /** The places in the answer of the last steps' groups in it. */
  leaves: readonly number[];
}

export const keyOf = (path: readonly string[]) => path.join("\u001f");

function added(a: Sum | undefined, b: Sum): Sum {
  if (!a) return b;
  return {
    value: a.value + b.value,
    unit: a.unit || b.unit,
    from_file: a.from_file + b.from_file,
    from_mesh: a.from_mesh + b.from_mesh,
    without: a.without + b.without,
  };
}

/** The groups of a schedule as a tree, one storey for each step. */
export function treeOf(groups: readonly Shapes["ScheduleGroup"][], depth: number): Group[] {
  const grow = (places: readonly number[], level: number): Group[] => {
    const by = new Map<string, number[]>();
    for (const place of places) {
      // By what is read: walls are walls, whichever of the standard's classes for them a program writes.
      const name = groups[place]?.says[level] ?? "";
      by.set(name, [...(by.get(name) ?? []), place]);
    }
    return [...by.values()].map((leaves) => {
      const first = groups[leaves[0] ?? 0];
      const sums = leaves.reduce<Sum[]>(
        (sum, place) => (groups[place]?.sums ?? []).map((each, k) => added(sum[k], each)),
        [],
      );
      return {
        path: first?.key.slice(0, level + 1) ?? [],
        says: first?.says[level] ?? "",
        count: leaves.reduce((sum, place) => sum + (groups[place]?.count ?? 0), 0),
        sums,
        inner: level + 1 < depth ? grow(leaves, level + 1) : [],
        leaves,
      };
    });
  };
  return grow(
    groups.map((_, place) => place),
    0,
  );
}

export type Row =
  | { kind: "group"; key: string; group: Group; open: boolean }
  | { kind: "component"; key: string; component: number; depth: number };

/** What is listed, from top to bottom: groups, and in those of the last step that are open their components. */
export function rowsOf(tree: readonly Group[], open: readonly string[], groupOf: Int32Array): Row[] {
  const rows: Row[] = [];
  const walk = (groups: readonly Group[]) => {
    for (const group of groups) {
      const key = keyOf(group.path);
      const isOpen = open.includes(key);
      rows.push({ kind: "group", key, group, open: isOpen });
      if (!isOpen) continue;
      if (group.inner.length) walk(group.inner);
      else
        for (const component of membersOf(group, groupOf))
          rows.push({ kind: "component", key: `c${component}`, component, depth: group.path.length });
    }
  };
  walk(tree);
  return rows;
}

/** The components of which what is told of each is as wanted. */
export function numbersIn(
  told: Uint8Array | Int32Array,
  wanted: (what: number, component: number) => boolean,
) {
  const out: number[] = [];
  told.forEach((what, component) => {
    if (wanted(what, component)) out.push(component);
  });
  return out;
}

/** The components of a group. */
export function membersOf(group: Group, groupOf: Int32Array): number[] {
  const within = new Set(group.leaves);
  return numbersIn(groupOf, (place) => within.has(place));
}

/** Where a component is listed: the keys of its groups, from the outermost on. */
export function pathTo(
  component: number,
  groups: readonly Shapes["ScheduleGroup"][],
  groupOf: Int32Array,
): string[] {
  const at = groups[groupOf[component] ?? -1];
  // The first group that is read the same stands for all of them.
  const same = groups.find((each) => at && keyOf(each.says) === keyOf(at.says));
  const key = same?.key ?? [];
  return key.map((_, k) => keyOf(key.slice(0, k + 1)));
}

type Terms = Extract<Selector, { kind: "both" }>["of"];

/** A group as rules select it: by what it is called, so that newer issues obey too. */
export function selectorOf(
  path: readonly string[],
  steps: readonly string[],
  conditions: readonly Condition[],
  called: string,
): Selector {
  const terms: Terms = path.map((value, k) => {
    const step = steps[k] ?? "";
    const what = ATTRIBUTES.find((each) => each.what === step)?.what;
    if (what) return { kind: "of", what, value };
    const condition: Condition = value
      ? { what: step, how: "equal", value, unit: "" }
      : { what: step, how: "missing", value: null, unit: "" };
    return { kind: "where", of: [condition], called: "" };
  });
  if (conditions.length) terms.unshift({ kind: "where", of: [...conditions], called });
  const [only] = terms;
  if (!only) return { kind: "all" };
  return terms.length === 1 ? only : { kind: "both", of: terms };
}

/** The steps with another one at a place, or none; one that is there already changes places with it. */
export function stepped(steps: readonly string[], at: number, value: string): string[] {
  const there = steps.indexOf(value);
  const before = steps[at];
  if (value && there >= 0 && before !== undefined)
    return steps.map((each, k) => (k === at ? value : k === there ? before : each));
  return [...steps.slice(0, at), ...(value && there < 0 ? [value] : []), ...steps.slice(at + 1)];
}

const bare = (step: string) => step.slice(Math.max(step.lastIndexOf("."), step.indexOf(":")) + 1);

/** What something is grouped by, as one says it. */
export const stepName = (step: string): string => plainName(bare(step));

/** What a group is called in its step, the last of its path. */
export function groupName(
  { path, says }: { path: readonly string[]; says: string },
  steps: readonly string[],
): string {
  return says || `no ${plainWithin(bare(steps[path.length - 1] ?? "name"))}`;
}
