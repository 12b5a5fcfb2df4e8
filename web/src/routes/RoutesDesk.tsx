import Box from "@mui/material/Box";
import { useEffect, useRef } from "react";
import { Vector3 } from "three";
import { api, taken } from "../api/client";
import { useWalking } from "../api/queries";
import { DeskNote } from "../desk/Desk";
import { orAloud } from "../project/session";
import { useOpen } from "../project/useStage";
import { Answer } from "./Answer";
import { Kept } from "./Kept";
import { RouteForm } from "./RouteForm";
import { useRouteState } from "./routeState";
import { tightPlaces, useRoute } from "./useRoute";
import { WalkIt } from "./WalkIt";
import { WalkRule } from "./WalkRule";

/** Can somebody get there: from, to and who; the answer, drawn on the floor; and routes that were kept. */
export function RoutesDesk() {
  const answer = useRouteState((s) => s.answer);
  useReady();
  return (
    <Box sx={{ fontSize: 13 }}>
      <RouteForm />
      {answer ? (
        <>
          <Answer answer={answer} />
          {answer.found && answer.points_m.length > 1 && <WalkIt answer={answer} />}
        </>
      ) : (
        <DeskNote>Choose where it begins and ends and who goes; the way is drawn on the floor.</DeskNote>
      )}
      <Kept />
      <WalkRule />
    </Box>
  );
}

/** Lets the server bring the map into memory while somebody chooses where to go. */
function useReady() {
  const { federation, projectId } = useOpen();
  const body = useRouteState((s) => s.body);
  const { data } = useWalking(projectId, body);
  const current = data?.current ? federation.version : null;
  useEffect(() => {
    if (current === null) return;
    const params = { path: { project_id: projectId }, query: { body } };
    void orAloud(async () => {
      await taken(api.POST("/api/projects/{project_id}/routes/ready", { params }));
    });
  }, [current, projectId, body]);
}

/** Draws the answer on the stage as long as there is one. */
export function RouteOnStage() {
  const { stage, federation, projectId } = useOpen();
  const answer = useRouteState((s) => s.answer);
  const { find } = useRoute();
  const body = useRouteState((s) => s.body);
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
    view.setRoute(
      answer && {
        points: answer.points_m.map((p) => new Vector3().fromArray(p)),
        tight: tightPlaces(answer),
      },
    );
    return () => view.setRoute(null);
  }, [stage, answer]);
  return null;
}
