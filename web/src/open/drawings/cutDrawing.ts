import { useEffect } from "react";
import type { Federation } from "../../api/client";
import { forward, type Pose } from "../../stage/pose";
import type { DrawingKind } from "../../stage/view";
import { useCutting, withDragged } from "../cuts/cutting";
import { type Cut, isLevel, sidesOf } from "../cuts/shape";
import { levelAt } from "../levels";
import { onStage } from "../origin";
import { useOpen } from "../useStage";
import { useViewState } from "../visibility/viewState";
import type { Drawing } from "./drawing";

const DEG = 180 / Math.PI;

/** What a cut leaves, seen against the side that it takes away. */
export function drawingOf(federation: Pick<Federation, "levels">, cut: Cut): Drawing | null {
  const [side] = sidesOf(cut.shape);
  if (!side || cut.shape.kind === "box") return null;
  const [x = 0, y = 0, z = 0] = side.normal;
  const level = isLevel(cut.shape) && z > 0 ? levelAt(federation.levels, side.point_m[2] ?? 0) : -1;
  return {
    kind: "cut",
    cut: cut.id,
    name: cut.name,
    bearingDeg: (Math.atan2(-x, -y) * DEG + 360) % 360,
    tiltDeg: Math.asin(Math.max(-1, Math.min(1, z))) * DEG,
    storey: federation.levels[level]?.name ?? null,
  };
}

/** A pose with its eye where the plane of a cut is, and its target as far behind it as before. */
export function ontoCut(pose: Pose, cut: Cut, origin_m: readonly number[]): Pose {
  const [side] = sidesOf(cut.shape);
  if (!side) return pose;
  const into = forward(pose);
  const point = onStage(side.point_m, origin_m);
  const shift = into.clone().multiplyScalar(point.sub(pose.eye).dot(into));
  return { ...pose, eye: pose.eye.clone().add(shift), target: pose.target.clone().add(shift) };
}

/** The drawing of a cut goes where the cut is moved to. */
export function useFollowCut(kind: DrawingKind, drawing: Drawing, ready: boolean): void {
  const { stage, federation } = useOpen();
  const cuts = useViewState((s) => s.cuts);
  const dragged = useCutting((s) => s.dragged);
  const id = drawing.kind === "cut" ? drawing.cut : null;
  const cut = id === null ? undefined : withDragged(cuts, dragged).find((each) => each.id === id);
  useEffect(() => {
    const view = stage()?.drawings[kind];
    if (!ready || !cut || !view) return;
    const pose = ontoCut(view.pose, cut, federation.origin_m);
    if (pose.eye.distanceTo(view.pose.eye) > 1e-6) stage()?.goDrawing(kind, pose, true);
  }, [kind, stage, federation, cut, ready]);
}
