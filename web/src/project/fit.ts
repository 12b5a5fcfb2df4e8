import { useCallback } from "react";
import { api, taken } from "../api/client";
import { fromShape, looking } from "../stage/pose";
import { find, useSession } from "./session";
import { useOpen } from "./useStage";

/** The bearing and tilt from which a building is first seen, about its own north. */
const FIRST_BEARING_DEG = 32;
const FIRST_TILT_DEG = 24;

/** Fit components, or everything, into the view; the core says where the eye stands. */
export function useFit() {
  const { federation, stage, projectId } = useOpen();
  const say = useSession((s) => s.say);
  return useCallback(
    async (components: readonly number[] | null, fromFirstSide = false) => {
      const view = stage();
      if (!view) return;
      const pose = view.pose;
      const look = fromFirstSide
        ? { bearingDeg: federation.building_north_deg + FIRST_BEARING_DEG, tiltDeg: FIRST_TILT_DEG }
        : looking(pose);
      const refs = components?.flatMap((component) => {
        const found = find(federation, component);
        return found ? [{ model: found.model.id, global_id: found.globalId }] : [];
      });
      try {
        const shape = await taken(
          api.POST("/api/projects/{project_id}/frame", {
            params: { path: { project_id: projectId } },
            body: {
              bearing_deg: look.bearingDeg,
              tilt_deg: look.tiltDeg,
              aspect: view.aspect,
              projection: pose.projection,
              angle_deg: pose.angleDeg,
              margin: components ? 0.2 : 0.04,
              components: refs ?? null,
            },
          }),
        );
        view.go(fromShape(shape));
      } catch (error) {
        if (error instanceof Error) say(error.message);
      }
    },
    [federation, stage, projectId, say],
  );
}
