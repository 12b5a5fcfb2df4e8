import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { Vector3 } from "three";
import type { PoseShape } from "../../api/client";
import { fromShape, looking, type Pose } from "../../stage/pose";
import { DRAWINGS, type DrawingKind } from "../../stage/view";
import { useHabits } from "../habits";
import { framed } from "../looking/framed";
import type { Subject } from "../looking/subject";
import { find } from "../numbering";
import { shownLevel } from "../plan/storey";
import { keyPlanQuery, useDirections, useNorth } from "../plan/useInstrument";
import { pickedNow } from "../selection";
import { useSession, withErrorNotice } from "../session";
import { announce } from "../trail/cause";
import { useOpen } from "../useStage";
import { type Cut, useViewState } from "../visibility/viewState";
import { drawingOf, ontoCut } from "./cutDrawing";
import { type Drawing, elevationsOf, levelOf, lookOf, plansOf, spokenDrawing } from "./drawing";
import { drawingShown, showDrawing, useBeside } from "./shown";

const ANGLE_DEG = 30;

/** The drawings that can stand beside the stage, and how each comes to be shown. */
export function useDrawings(kind: DrawingKind = "drawing") {
  const { federation, stage, projectId } = useOpen();
  const client = useQueryClient();
  const north = useNorth();
  const directions = useDirections();
  const frontDeg = useHabits((s) => s.frontDeg);
  const planes = useViewState((s) => s.cuts);
  return useMemo(() => {
    const { open, close } = useBeside.getState();
    const { say } = useSession.getState();
    const plans = plansOf(federation);
    const cuts = planes.flatMap((cut) => drawingOf(federation, cut) ?? []);
    const elevations = elevationsOf(directions, federation.building_north_deg + frontDeg);

    /** A framed pose, with the eye of a plan where the plan is cut. */
    const cutAt = async (drawing: Drawing, shape: PoseShape): Promise<Pose> => {
      const pose = fromShape(shape);
      if (drawing.kind === "cut") {
        const cut = useViewState.getState().cuts.find(({ id }) => id === drawing.cut);
        return cut ? ontoCut(pose, cut, federation.origin_m) : pose;
      }
      const level = federation.levels[levelOf(federation, drawing)];
      if (!level) return pose;
      const plan = await client.fetchQuery(keyPlanQuery(federation.id, level.plan ?? ""));
      pose.eye.z = plan.cut_m;
      pose.target.z = level.elevation_m;
      return pose;
    };
    const goTo = (drawing: Drawing, subject: Subject, cause: string, atOnce: boolean) =>
      withErrorNotice(async () => {
        const view = stage()?.drawings[kind];
        if (!view) return;
        const lens = { projection: "parallel", angleDeg: ANGLE_DEG } as const;
        const look = lookOf(drawing, north);
        const shape = await framed(projectId, federation, subject, look, lens, view.aspect);
        const pose = await cutAt(drawing, shape);
        const now = stage();
        if (!now?.drawings[kind]) return;
        announce(cause, kind);
        showDrawing(now, kind, drawing, pose, atOnce);
      });
    const whole = (drawing: Drawing): Subject =>
      levelOf(federation, drawing) < 0
        ? { kind: "all" }
        : { kind: "storey", level: levelOf(federation, drawing) };
    const planHere = (): Drawing | null => {
      const name = federation.levels[shownLevel(federation)]?.name;
      return plans.find((p) => p.kind === "plan" && p.storey === name) ?? plans[0] ?? null;
    };
    /** Open the drawing, or show another one in its place. */
    const show = (drawing: Drawing, atOnce = false) => {
      if (stage()?.drawings[kind]) void goTo(drawing, whole(drawing), spokenDrawing(drawing), atOnce);
      else open(kind, drawing);
    };
    return {
      plans,
      elevations,
      cuts,
      show,
      /** Show what a cut leaves beside the stage. */
      showCut: (cut: Cut) => {
        const drawing = drawingOf(federation, cut);
        if (drawing) show(drawing);
      },
      /** Put a plan of the storey one is on beside the stage, or put the drawing away. */
      toggle: () => {
        // A model without storeys still has its sides.
        const first = planHere() ?? (federation.models.length ? elevations[0] : null);
        if (DRAWINGS.some((each) => drawingShown(each))) for (const each of DRAWINGS) close(each);
        else if (first) open("drawing", first);
        else say("There are no plans yet. Plans appear once a model has been read.");
      },
      /** An elevation in the direction in which the stage looks now. */
      asStageLooks: () => {
        const pose = stage()?.pose;
        if (!pose) return;
        const bearingDeg = Math.round(looking(pose).bearingDeg * 10) / 10;
        const own = ((bearingDeg - north + 720) % 360).toFixed(0).padStart(3, "0");
        show({ kind: "elevation", name: `Elevation towards ${own}°`, bearingDeg, tiltDeg: 0 });
      },
      fitTo: (drawing: Drawing) => {
        const picked = pickedNow();
        const subject: Subject = picked.length ? { kind: "components", components: picked } : whole(drawing);
        void goTo(
          drawing,
          subject,
          picked.length ? "fit: selection" : `fit: ${spokenDrawing(drawing)}`,
          false,
        );
      },
      /** Bring a component that was picked elsewhere into the drawing, at the scale it has. */
      bring: (component: number) => {
        const now = stage();
        const view = now?.drawings[kind];
        const shown = drawingShown(kind);
        const box = now?.building.boxesOf([component]).get(component);
        const found = find(federation, component);
        if (!now || !view || !shown || !box || !found) return;
        const centre = box.getCenter(new Vector3());
        const level = federation.levels[found.model.level[found.at] ?? -1];
        const other = plans.find((p) => p.kind === "plan" && p.storey === level?.name);
        const drawing = shown.kind === "plan" && other ? other : shown;
        const same = levelOf(federation, drawing) === levelOf(federation, shown);
        if (same && view.shows(centre)) return;
        const pose = view.pose;
        if (!same && level) {
          const lift = level.elevation_m - pose.target.z;
          pose.eye.z += lift;
          pose.target.z += lift;
        }
        const into = pose.target.clone().sub(pose.eye).normalize();
        const shift = centre.sub(pose.eye);
        shift.addScaledVector(into, -shift.dot(into));
        pose.eye.add(shift);
        pose.target.add(shift);
        announce(`found: ${found.model.labels[found.at]}`, kind);
        showDrawing(now, kind, drawing, pose);
      },
    };
  }, [kind, federation, stage, projectId, client, north, directions, frontDeg, planes]);
}
