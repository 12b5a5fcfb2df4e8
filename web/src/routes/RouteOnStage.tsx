import { useEffect, useRef } from "react";
import { Vector3 } from "three";
import { useWalking } from "../api/queries";
import { numberOf } from "../open/numbering";
import { useOpen } from "../open/useStage";
import { Outlines } from "../stage/layers/outlines";
import { RouteLine } from "../stage/layers/routeLine";
import { useRouteState } from "./routeState";
import { tightPlaces, useRoute } from "./useRoute";
import { useRouteBody, useShownWay } from "./useShownWay";

/** Draws the way on the stage, and finds it again where the building changed. */
export function RouteOnStage() {
  const { stage, federation, projectId } = useOpen();
  const way = useShownWay();
  const { find } = useRoute();
  const body = useRouteBody();
  const { data } = useWalking(projectId, body);
  const found = useRef<number | null>(null);
  const current = data?.current ? federation.version : null;
  // Another alternative, or a newer issue: the way is found again as soon as its map is there.
  useEffect(() => {
    if (current === null) return;
    const { answer: last } = useRouteState.getState();
    if (found.current !== null && last && last.version !== current) void find(true);
    found.current = current;
  }, [current, find]);
  useEffect(() => {
    const view = stage();
    if (!view) return;
    view.layer(RouteLine).show(
      way && {
        points: way.points_m.map((p) => new Vector3().fromArray(p)),
        tight: tightPlaces(way),
      },
    );
    return () => view.layer(RouteLine).show(null);
  }, [stage, way]);
  const outlined = useRouteState((s) => s.outlined);
  useEffect(() => {
    const view = stage();
    if (!view || !way) return;
    const numbers = outlined.map((c) => numberOf(federation, c.model, c.global_id)).filter((n) => n >= 0);
    view.layer(Outlines).show(numbers.flatMap((n) => [...view.building.edgesOf(n)]));
    return () => view.layer(Outlines).show([]);
  }, [stage, federation, way, outlined]);
  return null;
}
