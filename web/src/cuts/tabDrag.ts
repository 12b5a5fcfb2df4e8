import { Vector3 } from "three";
import type { Federation } from "../api/client";
import { carriedTo, reshaped } from "../open/cuts/cutting";
import { type Cut, toMilli, turnedTo } from "../open/cuts/shape";
import { inProject } from "../open/origin";
import { forward } from "../stage/pose";
import type { View } from "../stage/view";

/** Where a metre along the normal is shorter than this on the screen one looks along it; then up and down move it. */
export const LEAST_PX = 4;
/** The grip by which a plane is tilted is so far from what it turns about. */
export const LEVER_PX = 60;
const STEP_DEG = 1;
const RAD = Math.PI / 180;

/** A tab that was taken hold of: where, and how far on the screen a metre along its normal is. */
export interface Held {
  from: Cut;
  side: number;
  x: number;
  y: number;
  px: { x: number; y: number };
  slope: number;
  /** How it tilts, where it was taken by its grip. */
  tilt: { normal: Vector3; lever: Vector3; about: Vector3; leverM: number } | null;
}

/** The way in a plane, across the view, in which its grip lies: to the left of its normal on the screen. */
export function leverOf(view: View, anchor: Vector3, normal: Vector3): Vector3 {
  const lever = new Vector3().crossVectors(normal, forward(view.pose));
  if (lever.lengthSq() < 1e-6) lever.crossVectors(normal, view.pose.up);
  lever.normalize();
  const at = view.pixelOf(anchor);
  const way = (by: Vector3) => {
    const to = view.pixelOf(anchor.clone().add(by));
    return { x: to.x - at.x, y: to.y - at.y };
  };
  const [n, u] = [way(normal), way(lever)];
  return n.x * u.y - n.y * u.x > 0 ? lever.negate() : lever;
}

/** Take hold of a tab, by its bar to carry the plane, or by its grip to tilt it. */
export function takeHold(
  view: View,
  at: { x: number; y: number },
  tab: { cut: Cut; side: number; normal: Vector3; anchor: Vector3 },
  tilting: boolean,
): Held {
  const { cut, side, normal, anchor } = tab;
  const from = view.pixelOf(anchor);
  const to = view.pixelOf(anchor.clone().add(normal));
  const px = { x: to.x - from.x, y: to.y - from.y };
  const along = Math.hypot(px.x, px.y) < LEAST_PX;
  const perM =
    view.pose.projection === "parallel" ? view.pixelM : view.pixelM * anchor.distanceTo(view.pose.eye);
  return {
    from: cut,
    side,
    ...at,
    px: along ? { x: 0, y: -1 / perM } : px,
    slope: along ? 1 / (perM * perM) : px.x * px.x + px.y * px.y,
    tilt: tilting
      ? {
          normal: normal.clone(),
          lever: leverOf(view, anchor, normal),
          about: anchor.clone(),
          leverM: LEVER_PX * perM,
        }
      : null,
  };
}

/** A cut tilted so far about a point of its plane, from its normal away from a way in the plane. */
export function tilted(
  federation: Pick<Federation, "levels" | "origin_m">,
  from: Cut,
  by: { normal: Vector3; lever: Vector3; about: Vector3 },
  angleDeg: number,
): Cut {
  const [c, s] = [Math.cos(angleDeg * RAD), Math.sin(angleDeg * RAD)];
  const normal = by.normal.clone().multiplyScalar(c).addScaledVector(by.lever, -s);
  const about = inProject(by.about, federation.origin_m);
  const plain = normal.toArray().map((v) => Math.round(v * 1e9) / 1e9);
  return reshaped(federation, from, turnedTo(from.shape, plain, about));
}

/** The cut as it is while its tab is dragged. */
export function draggedTo(
  federation: Pick<Federation, "levels" | "origin_m">,
  held: Held,
  at: { x: number; y: number },
): Cut {
  const by = ((at.x - held.x) * held.px.x + (at.y - held.y) * held.px.y) / held.slope;
  if (!held.tilt) return carriedTo(federation, held.from, held.side, toMilli(by));
  const angle = Math.atan2(by, held.tilt.leverM) / RAD;
  return tilted(federation, held.from, held.tilt, Math.round(angle / STEP_DEG) * STEP_DEG);
}
