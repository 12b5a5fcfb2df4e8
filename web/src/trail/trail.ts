import { get, set } from "idb-keyval";
import { create } from "zustand";
import type { PoseShape } from "../api/client";
import type { Drawing } from "../beside/drawing";
import type { ViewKind } from "../stage/view";

/** A place where the eye rested, with what brought it there. */
export interface Place {
  id: number;
  pose: PoseShape;
  cause: string;
  picture: string;
  /** What was drawn there, on the trail of the drawing beside the stage. */
  drawing?: Drawing;
}

interface TrailState {
  places: readonly Place[];
  /** The place one is at, or was at last. */
  at: number;
}

interface OpenTrail extends TrailState {
  /** Whose trail of which project this is; empty until it was taken up. */
  of: string;
  /** The place where the project was opened this time. */
  openedId: number | null;
}

export const MOST_PLACES = 200;
const SAME = 1e-7;

export function samePose(a: PoseShape, b: PoseShape): boolean {
  const flat = (p: PoseShape) => [...p.eye_m, ...p.target_m, ...p.up, p.angle_deg, p.height_m];
  const [one, other] = [flat(a), flat(b)];
  return (
    a.projection === b.projection &&
    one.every((v, i) => Math.abs(v - (other[i] ?? 0)) <= SAME * Math.max(1, Math.abs(v)))
  );
}

/**
 * The trail with a new place after the present one; what was ahead stays ahead. The place one
 * is at already is not added again. The oldest go, but never the first, which is how the
 * project was opened.
 */
export function withPlace<T extends TrailState>(trail: T, place: Omit<Place, "id">): T | TrailState {
  const here = trail.places[trail.at];
  if (here && samePose(here.pose, place.pose)) return trail;
  const id = Math.max(0, ...trail.places.map((p) => p.id)) + 1;
  const places = [...trail.places];
  const at = places.length ? trail.at + 1 : 0;
  places.splice(at, 0, { ...place, id });
  if (places.length <= MOST_PLACES) return { places, at };
  const gone = at === 1 ? 2 : 1;
  places.splice(gone, 1);
  return { places, at: at > gone ? at - 1 : at };
}

/** The place a step back or forward, if there is one. */
export function stepped(trail: TrailState, by: number): number | null {
  const to = trail.at + by;
  return to >= 0 && to < trail.places.length ? to : null;
}

const NONE: OpenTrail = { places: [], at: 0, of: "", openedId: null };

/** The stage has a trail, and the drawing beside it has its own. */
export const trails = {
  stage: create<OpenTrail>(() => NONE),
  drawing: create<OpenTrail>(() => NONE),
} satisfies Record<ViewKind, unknown>;

export function useTrail<T>(kind: ViewKind, select: (trail: OpenTrail) => T): T {
  return trails[kind](select);
}

export function trailOf(projectId: string, person: string, kind: ViewKind = "stage"): string {
  return `trail${kind === "stage" ? "" : `/${kind}`}/${projectId}/${person}`;
}

/** Take up a trail of a person in a project, as it was left. */
export async function openTrail(kind: ViewKind, projectId: string, person: string): Promise<void> {
  const of = trailOf(projectId, person, kind);
  trails[kind].setState(NONE);
  const kept = await get<TrailState>(of);
  trails[kind].setState({ ...(kept ?? { places: [], at: 0 }), of });
}

/** Change a trail, and keep it. */
export function changeTrail(kind: ViewKind, { places, at }: TrailState): void {
  const { of, openedId } = trails[kind].getState();
  trails[kind].setState({ places, at, openedId: openedId ?? places[at]?.id ?? null });
  if (of) void set(of, { places, at });
}
