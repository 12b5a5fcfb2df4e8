import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect } from "react";
import { answerOf, api } from "../api/client";
import { useWalking } from "../api/queries";
import { withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { useWalkState } from "../open/walking/walkState";
import { DeskNote } from "../parts/desk";
import { tone } from "../style/theme";
import { Answer } from "./Answer";
import { Kept } from "./Kept";
import { OtherWays } from "./OtherWays";
import { RouteForm } from "./RouteForm";
import { changedSince, useRouteState, wayShown, wishNow } from "./routeState";
import { WalkIt } from "./WalkIt";
import { WalkRule } from "./WalkRule";

/** Can somebody get there: from, to and who; the answer, drawn on the floor; and routes that were kept. */
export function RoutesDesk() {
  const state = useRouteState();
  const { searching, answer, away, set } = state;
  const body = useWalkState((s) => s.body);
  const changed = changedSince(state.asked, wishNow(state, body));
  const way = wayShown(state);
  useReady();
  return (
    <Box sx={{ fontSize: 13 }}>
      <RouteForm />
      <Box role="status">
        {searching && <DeskNote>Finding a route…</DeskNote>}
        {!searching && changed && (
          <Box data-testid="route-changed" sx={{ color: tone.wrong, mt: 1 }}>
            {changed} Find the route again.
          </Box>
        )}
      </Box>
      {way ? (
        <Box sx={{ opacity: searching || changed ? 0.55 : 1 }}>
          <Answer answer={way} />
          {answer?.found && <OtherWays />}
          {way.found && way.points_m.length > 1 && (
            <WalkIt key={`${state.chosen} ${way.length_m} ${way.time_s}`} answer={way} />
          )}
          <Button variant="text" onClick={() => set({ away: !away, outlined: [] })}>
            {away ? "Show the line" : "Hide the line"}
          </Button>
        </Box>
      ) : (
        !searching && <DeskNote>Choose a start, an end and a body. The route is drawn on the floor.</DeskNote>
      )}
      <Kept />
      <WalkRule />
    </Box>
  );
}

/** Lets the server bring the map into memory while somebody chooses where to go. */
function useReady() {
  const { federation, projectId } = useOpen();
  const body = useWalkState((s) => s.body);
  const { data } = useWalking(projectId, body);
  const current = data?.current ? federation.version : null;
  useEffect(() => {
    if (current === null) return;
    const params = { path: { project_id: projectId }, query: { body } };
    void withErrorNotice(async () => {
      await answerOf(api.POST("/api/projects/{project_id}/routes/ready", { params }));
    });
  }, [current, projectId, body]);
}
