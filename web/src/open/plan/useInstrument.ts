import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api } from "../../api/client";
import { along, looking } from "../../stage/pose";
import { openBearing } from "../../stage/sight";
import { useHabits } from "../habits";
import { levelAt } from "../levels";
import { useCameraCommands } from "../looking/useCameraCommands";
import { announce } from "../trail/cause";
import { useOpen } from "../useStage";
import { type Direction, directionAt, nearestKind, plumb } from "./directions";
import { type KeyPlan, type Point, roomAt } from "./plan";

/** Above this tilt one would look at the floor in front of one's feet. */
const STEEP_DEG = 60;
/** Coming in from outside, one looks level and through the lens for rooms. */
const NARROW_DEG = 45;
const INSIDE_DEG = 60;

/** A key plan by its hash, fetched once and for ever. */
export function keyPlanQuery(projectId: string, sha: string) {
  return {
    queryKey: ["keyplan", projectId, sha],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/keyplans/{sha256}", {
          params: { path: { project_id: projectId, sha256: sha } },
        }),
      ),
  };
}

/** The key plan of a level; the one before it until it has come. */
export function useKeyPlan(level: number): KeyPlan | null {
  const { federation, projectId } = useOpen();
  const sha = federation.levels[level]?.plan ?? "";
  const { data } = useQuery({
    ...keyPlanQuery(projectId, sha),
    enabled: sha !== "",
    placeholderData: (before: KeyPlan | undefined) => before,
  });
  return data ?? null;
}

export function useDirections(): readonly Direction[] {
  const { data } = useQuery({
    queryKey: ["directions"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => answerOf(api.GET("/api/camera/directions")),
  });
  return data ?? [];
}

/** The bearing that is up the sheet and zero on the ring. */
export function useNorth(): number {
  const { federation } = useOpen();
  const trueNorth = useHabits((s) => s.trueNorth);
  return trueNorth
    ? (federation.true_north_deg ?? federation.building_north_deg)
    : federation.building_north_deg;
}

/** Turning and standing by the instrument. */
export function useTurns(plan: KeyPlan | null) {
  const { federation, stage } = useOpen();
  const look = useCameraCommands();
  const directions = useDirections();
  return useMemo(() => {
    /** Inside a room one turns on the spot; outside, about what one looks at. */
    const about = (): Vector3 => {
      const view = stage();
      if (!view) return new Vector3();
      const { eye } = view.pose;
      const level = federation.levels[levelAt(federation.levels, eye.z)];
      const within = plan && level?.name === plan.storey && roomAt(plan, eye);
      return within ? eye.clone() : view.pivotPoint;
    };
    const front = () => federation.building_north_deg + useHabits.getState().frontDeg;
    const toDirection = (direction: Direction) => {
      const bearing = front() + direction.bearing_deg;
      const level = federation.levels.findIndex((l) => l.name === plan?.storey);
      // Of a building with storeys, a plan shows the storey and not the roof.
      if (direction.tilt_deg === 90 && plan && level >= 0)
        return look.squareToPlan(level, plan.cut_m, bearing);
      return look.turnTo({ bearing_deg: bearing, tilt_deg: direction.tilt_deg }, `from ${direction.name}`);
    };
    return {
      about,
      front,
      toDirection,
      /** Look from a side, level or as far from above or below as one does now. */
      toSide: (side: Direction) => {
        const pose = stage()?.pose;
        if (!pose) return;
        const found = directionAt(directions, side.bearing_deg, nearestKind(looking(pose).tiltDeg));
        if (found) void toDirection(found);
      },
      /** Look level, from above or below, or straight down or up, from the side one is nearest to. */
      toTilt: (tiltDeg: number) => {
        const pose = stage()?.pose;
        if (!pose) return;
        const bearing = looking(pose).bearingDeg - front();
        const found =
          Math.abs(tiltDeg) === 90
            ? plumb(directions, tiltDeg > 0)
            : directionAt(directions, bearing, nearestKind(tiltDeg));
        if (found) void toDirection(found);
      },
      drag: (bearingDeg: number, tiltDeg: number, pivot: Vector3) =>
        stage()?.turnTo(bearingDeg, tiltDeg, pivot),
      /** Stand at a point of the plan; still looking the same way, unless it is said where to. */
      stand: (
        p: Point,
        level: number,
        more: { cause?: string; bearingDeg?: number; floorM?: number } = {},
      ) => {
        const view = stage();
        const floor = more.floorM ?? federation.levels[level]?.elevation_m ?? 0;
        if (!view) return;
        const now = looking(view.pose);
        const fromOutside = view.pose.angleDeg < NARROW_DEG || view.pose.projection === "parallel";
        const levelled = fromOutside || Math.abs(now.tiltDeg) > STEEP_DEG;
        const eye = new Vector3(p.x, p.y, floor + useHabits.getState().eyeHeightM);
        const clear = (from: Vector3, to: Vector3) => view.building.clear(from, to);
        const bearing = more.bearingDeg ?? openBearing(clear, eye, now.bearingDeg);
        const turned = bearing !== now.bearingDeg;
        const { forward, up } = along(bearing, levelled || turned ? 0 : now.tiltDeg);
        const room = plan && roomAt(plan, p);
        announce(more.cause ?? (room ? `stand: ${room.number} ${room.name}` : "stand"));
        view.go({
          ...view.pose,
          projection: "perspective",
          angleDeg: fromOutside ? INSIDE_DEG : view.pose.angleDeg,
          eye,
          target: eye.clone().addScaledVector(forward, 5),
          up,
        });
      },
      /** Stand at one point and look to another, at once; while it is dragged. */
      standAndLook: (from: Point, to: Point, level: number) => {
        const view = stage();
        const floor = federation.levels[level]?.elevation_m ?? 0;
        if (!view) return;
        const z = floor + useHabits.getState().eyeHeightM;
        const eye = new Vector3(from.x, from.y, z);
        announce("stand and look");
        view.take({
          ...view.pose,
          projection: "perspective",
          eye,
          target: new Vector3(to.x, to.y, z),
          up: new Vector3(0, 0, 1),
        });
      },
      /** Carry the eye to a point of the plan at its height; the stage follows. */
      carry: (p: Point) => {
        const view = stage();
        if (!view) return;
        const pose = view.pose;
        const shift = new Vector3(p.x - pose.eye.x, p.y - pose.eye.y, 0);
        announce("dragged on the plan");
        view.take({ ...pose, eye: pose.eye.add(shift), target: pose.target.add(shift) });
      },
    };
  }, [federation, stage, look, directions, plan]);
}
