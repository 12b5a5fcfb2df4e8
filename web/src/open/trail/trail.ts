import { get, set } from "idb-keyval";
import type { View } from "../../api/client";
import type { ViewKind } from "../../stage/view";
import { type OlderView, today } from "../document";
import type { Drawing } from "../drawings/drawing";
import { perProject } from "../perProject";
import { goesOn } from "./cause";

/** A place where the eye rested, with what brought it there. */
export interface Place {
  id: number;
  /** All that was seen there. */
  view: View;
  cause: string;
  picture: string;
  /** When the eye came to rest there, in milliseconds since 1970; an earlier version did not keep it. */
  restedMs?: number;
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
/** What moves on so soon after it rested has not arrived yet. */
const GOES_ON_MS = 10_000;
const SAME = 1e-7;

/** Whether two views see the same from the same eye: how far away the target is counts only in a parallel view. */
export function sameEye({ eye: a }: View, { eye: b }: View): boolean {
  const flat = (p: View["eye"]) => {
    const look = p.target_m.map((c, i) => c - (p.eye_m[i] ?? 0));
    const length = Math.hypot(...look) || 1;
    const aim = look.map((c) => c / length);
    return [...p.eye_m, ...aim, ...p.up, p.angle_deg, ...(p.projection === "parallel" ? [p.height_m] : [])];
  };
  const [one, other] = [flat(a), flat(b)];
  return (
    a.projection === b.projection &&
    one.every((v, i) => Math.abs(v - (other[i] ?? 0)) <= SAME * Math.max(1, Math.abs(v)))
  );
}

function isOneApproach(before: Place, place: Omit<Place, "id">): boolean {
  if (before.restedMs === undefined || place.restedMs === undefined) return false;
  return goesOn(place.cause) && before.cause === place.cause && place.restedMs - before.restedMs < GOES_ON_MS;
}

/**
 * The trail with a new place as its last one. The place one is at already, or the last one, is not added again, and several moves
 * of one approach are one place, the last of them. The oldest go, but never the first, which is how the project was opened.
 */
export function withPlace<T extends TrailState>(trail: T, place: Omit<Place, "id">): T | TrailState {
  const here = trail.places[trail.at];
  if (here && sameEye(here.view, place.view)) return trail;
  const last = trail.places.at(-1);
  if (last && sameEye(last.view, place.view)) return { ...trail, at: trail.places.length - 1 };
  if (here && here === last && isOneApproach(here, place))
    return { ...trail, places: [...trail.places.slice(0, -1), { ...place, id: here.id }] };
  const id = Math.max(0, ...trail.places.map((p) => p.id)) + 1;
  const places = [...trail.places, { ...place, id }];
  if (places.length > MOST_PLACES) places.splice(1, 1);
  return { places, at: places.length - 1 };
}

/** The place a step back or forward, if there is one. */
export function stepped(trail: TrailState, by: number): number | null {
  const to = trail.at + by;
  return to >= 0 && to < trail.places.length ? to : null;
}

const NONE: OpenTrail = { places: [], at: 0, of: "", openedId: null };

/** The stage has a trail, and each drawing beside it has its own. */
export const trails = {
  stage: perProject<OpenTrail>(() => NONE),
  drawing: perProject<OpenTrail>(() => NONE),
  second: perProject<OpenTrail>(() => NONE),
} satisfies Record<ViewKind, unknown>;

export function useTrail<T>(kind: ViewKind, select: (trail: OpenTrail) => T): T {
  return trails[kind](select);
}

export function trailOf(projectId: string, person: string, kind: ViewKind = "stage"): string {
  return `trail${kind === "stage" ? "" : `/${kind}`}/${projectId}/${person}`;
}

/** A place as it is kept; an earlier version kept its pose about the origin of the day. */
type KeptPlace = Place | (Omit<Place, "view"> & { pose: OlderView["pose"] });

/** Take up a trail of a person in a project, as it was left. */
export async function openTrail(
  kind: ViewKind,
  projectId: string,
  person: string,
  origin_m: readonly number[],
): Promise<void> {
  const of = trailOf(projectId, person, kind);
  trails[kind].setState(NONE);
  const kept = await get<{ places: KeptPlace[]; at: number }>(of);
  const places = (kept?.places ?? []).map<Place>((place) =>
    "view" in place ? place : { ...place, view: today({ pose: place.pose, origin_m: [...origin_m] }) },
  );
  trails[kind].setState({ places, at: kept?.at ?? 0, of });
}

/** Change a trail, and keep it. */
export function changeTrail(kind: ViewKind, { places, at }: TrailState): void {
  const { of, openedId } = trails[kind].getState();
  trails[kind].setState({ places, at, openedId: openedId ?? places[at]?.id ?? null });
  if (of) void set(of, { places, at });
}
