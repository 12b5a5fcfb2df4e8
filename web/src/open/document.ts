import { Vector3 } from "three";
import type { ComponentRef, Federation, Shapes, View } from "../api/client";
import type { Pose } from "../stage/pose";
import { numberingOf, theseOf } from "./numbering";
import { inProject, onStage, shifted } from "./origin";
import type { Look } from "./visibility/viewState";

type Rule = Shapes["Rule"];

/** The one edge between the stage, which counts from the federation's origin, and the document, which does not. */
export function eyeOf(pose: Pose, origin_m: readonly number[]): Pick<View, "eye"> & { through_m: number } {
  return {
    eye: {
      eye_m: inProject(pose.eye, origin_m),
      target_m: inProject(pose.target, origin_m),
      up: pose.up.toArray(),
      projection: pose.projection,
      angle_deg: pose.angleDeg,
      height_m: pose.heightM,
    },
    through_m: pose.throughM,
  };
}

/** The same edge the other way. */
export function poseOf(view: Pick<View, "eye" | "limits">, origin_m: readonly number[]): Pose {
  return {
    eye: onStage(view.eye.eye_m, origin_m),
    target: onStage(view.eye.target_m, origin_m),
    up: new Vector3().fromArray(view.eye.up),
    projection: view.eye.projection,
    angleDeg: view.eye.angle_deg,
    heightM: view.eye.height_m,
    throughM: view.limits?.through_m ?? 0,
  };
}

/** The view document of what is seen now. */
export function toView(federation: Federation, pose: Pose, look: Look, refs: readonly ComponentRef[]): View {
  const alternatives: Record<string, string> = {};
  for (const model of federation.models)
    if (model.alternative_what && model.stands) alternatives[model.alternative_what] = model.name;
  const { eye, through_m } = eyeOf(pose, federation.origin_m);
  return {
    version: 2,
    eye,
    limits: { through_m, depth_m: look.depthM },
    rules: look.rules as Rule[],
    cuts: [...look.cuts],
    measures: [...look.measures],
    style: look.style,
    markups: [...look.markups],
    pictures: [...look.pictures],
    whole: { kind: "these", of: look.whole },
    alternatives,
    picked: theseOf(refs),
    frame: null,
  };
}

/** A view document in the terms of the stage, and how many components it names that the federation no longer has. */
export function fromView(federation: Federation, view: View) {
  const numbering = numberingOf(federation);
  const look: Look = {
    rules: view.rules ?? [],
    depthM: view.limits?.depth_m ?? null,
    cuts: view.cuts ?? [],
    whole: view.whole?.of ?? {},
    measures: view.measures ?? [],
    style: view.style ?? "edges",
    markups: view.markups ?? [],
    pictures: view.pictures ?? [],
  };
  const named = [view.picked ?? { of: {} }, { of: look.whole }, ...look.rules.map((rule) => rule.select)];
  const wanted = new Set<string>();
  for (const select of named)
    if (!("kind" in select) || select.kind === "these")
      for (const [model, ids] of Object.entries(select.of as Record<string, string[]>))
        for (const id of ids) wanted.add(`${model}/${id}`);
  const missing = [...wanted].filter((key) => {
    const [model = "", id = ""] = key.split("/");
    return numbering.numberOf(model, id) < 0;
  }).length;
  const picked = numbering.numbersOf({ kind: "these", of: view.picked?.of ?? {} });
  return { pose: poseOf(view, federation.origin_m), look, picked, missing };
}

const EFFECTS = { shown: "show", faded: "fade", hidden: "hide" } as const;
type State = keyof typeof EFFECTS;

/** What a browser or an address of an earlier version kept of a view. */
export interface OlderView {
  pose: Omit<View["eye"], "version"> & { through_m?: number };
  origin_m: number[];
  cells?: { level: string | null; discipline: string; state: State }[];
  shown?: ComponentRef[];
  hidden?: ComponentRef[];
  faded?: ComponentRef[];
  picked?: ComponentRef[];
}

/** A view that was kept, in the form of today. */
export function today(kept: View | OlderView): View {
  if ("eye" in kept) return kept;
  const { pose, origin_m } = kept;
  const there = (at: readonly number[]) => shifted(at, origin_m);
  const plain = { colour: null, by: "", at: "", why: "", off: false };
  const cells = (kept.cells ?? []).map<Rule>((cell) => ({
    ...plain,
    select: {
      kind: "both",
      of: [
        { kind: "of", what: "level", value: cell.level ?? "" },
        { kind: "of", what: "discipline", value: cell.discipline },
      ],
    },
    effect: EFFECTS[cell.state],
  }));
  const own = (["shown", "faded", "hidden"] as const).flatMap<Rule>((state) =>
    kept[state]?.length ? [{ ...plain, select: theseOf(kept[state]), effect: EFFECTS[state] }] : [],
  );
  const { through_m, ...lens } = pose;
  return {
    version: 2,
    eye: { ...lens, eye_m: there(pose.eye_m), target_m: there(pose.target_m) },
    limits: { through_m: through_m ?? 0, depth_m: null },
    rules: [...cells, ...own],
    cuts: [],
    measures: [],
    style: "edges",
    markups: [],
    pictures: [],
    whole: theseOf([]),
    alternatives: {},
    picked: theseOf(kept.picked ?? []),
    frame: null,
  };
}
