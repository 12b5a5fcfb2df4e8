import { type UseQueryResult, useQueries } from "@tanstack/react-query";
import { useMemo } from "react";
import { Vector3 } from "three";
import { answerOf, api } from "../api/client";
import { keys, useWalking } from "../api/queries";
import { poseOf } from "../open/document";
import { useOpen } from "../open/useStage";
import { useTour } from "../open/views/tourState";
import { Tour as Way } from "../open/walking/tour";
import { eyesOf } from "../stage/movers/walking";
import type { Pose } from "../stage/pose";
import { Timeline } from "./timeline";

const BODY = "standing";

const together = (all: readonly UseQueryResult<Way | null>[]) => ({
  found: all.map(({ data }) => data ?? null),
  finding: all.some(({ isFetching }) => isFetching),
});

/** The tour that is played as a timeline, and whether ways on foot are still being looked for. */
export function useTimeline(): { line: Timeline; finding: boolean } {
  const { projectId, federation } = useOpen();
  const { views, onFoot } = useTour();
  const { data: walking } = useWalking(projectId, BODY);
  const stops = useMemo(
    () => views.map(({ view }) => poseOf(view, federation.origin_m)),
    [views, federation],
  );
  const pairs = onFoot ? stops.slice(1).map((to, k) => [stops[k], to] as const) : [];
  const ways = useQueries({
    queries: pairs.map(([from, to]) => ({
      queryKey: [...keys.routes(projectId), "tour", from?.eye.toArray(), to.eye.toArray()],
      enabled: onFoot && walking?.current === true,
      retry: false,
      queryFn: () => wayBetween(projectId, from, to),
    })),
    combine: together,
  });
  const eyesM = eyesOf(walking?.bodies.find(({ name }) => name === BODY)?.height_m ?? 1.8);
  const line = useMemo(() => new Timeline(stops, ways.found, eyesM), [stops, ways.found, eyesM]);
  return { line, finding: ways.finding };
}

/** The way on foot between two eyes, or null where there is none. */
async function wayBetween(projectId: string, from: Pose | undefined, to: Pose): Promise<Way | null> {
  if (from?.projection !== "perspective" || to.projection !== "perspective") return null;
  const place = ({ eye }: Pose) => ({ point_m: eye.toArray(), label: "" });
  const answer = await answerOf(
    api.POST("/api/projects/{project_id}/routes/find", {
      params: { path: { project_id: projectId } },
      body: {
        start: place(from),
        end: place(to),
        body: BODY,
        step_free: false,
        width_limit_m: 0.9,
        height_limit_m: 2,
      },
    }),
  ).catch(() => null); // where nobody can stand there is no way, and one glides
  if (!answer?.length_m || answer.points_m.length < 2) return null;
  return new Way(answer.points_m.map((point) => new Vector3().fromArray(point)));
}
