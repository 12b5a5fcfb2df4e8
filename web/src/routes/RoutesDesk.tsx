import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { useEffect, useState } from "react";
import { Vector3 } from "three";
import { answerOf, api } from "../api/client";
import { useWalking } from "../api/queries";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { useWalkState } from "../open/walking/walkState";
import { DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { tone } from "../style/theme";
import { Answer } from "./Answer";
import { Kept } from "./Kept";
import { OtherWays } from "./OtherWays";
import { RouteForm } from "./RouteForm";
import { changedSince, type RouteAnswer, spokenTime, useRouteState, wayShown, wishNow } from "./routeState";
import { stopSearch } from "./useRoute";
import { useRouteBody } from "./useShownWay";
import { WalkIt } from "./WalkIt";
import { WalkRule } from "./WalkRule";

/** Can somebody get there: from, to and who; the answer, drawn on the floor; and routes that were kept. */
export function RoutesDesk() {
  const state = useRouteState();
  const { searching, answer, away, set } = state;
  const walker = useWalkState((s) => s.body);
  const changed = changedSince(state.asked, wishNow(state, walker));
  const way = searching === null ? wayShown(state) : null;
  useReady();
  return (
    <Box sx={{ fontSize: 13 }}>
      <RouteForm />
      {searching !== null && <Searching since={searching} />}
      <Box role="status">
        {searching === null && changed && (
          <Box data-testid="route-changed" sx={{ color: tone.wrong, mt: 1 }}>
            {changed} Find the route again.
          </Box>
        )}
      </Box>
      {way && (
        <Box sx={{ opacity: changed ? 0.55 : 1 }}>
          <Answer answer={way} />
          {!changed && (
            <>
              {answer?.found && <OtherWays />}
              {way.found && way.points_m.length > 1 && (
                <WalkIt key={`${state.chosen} ${way.length_m} ${way.time_s}`} answer={way} />
              )}
              <ShowWay points={way.points_m} />
              <Button variant="text" onClick={() => set({ away: !away, outlined: [] })}>
                {away ? "Show the line" : "Hide the line"}
              </Button>
            </>
          )}
        </Box>
      )}
      {!way && searching === null && (
        <DeskNote>Choose a start, an end and a body. The route is drawn on the floor.</DeskNote>
      )}
      <Kept current={searching === null && !changed} />
      <Only to="change the rules of the project">
        <WalkRule />
      </Only>
    </Box>
  );
}

/** How long a search takes so far, and a way to stop it. */
function Searching({ since }: { since: number }) {
  const [now, setNow] = useState(since);
  useEffect(() => {
    const clock = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(clock);
  }, []);
  const seconds = Math.max(0, Math.round((now - since) / 1000));
  return (
    <Box sx={{ mt: 1 }}>
      <Box role="status">
        <DeskNote>Finding a route…</DeskNote>
      </Box>
      <LinearProgress aria-label="Finding a route" sx={{ my: 0.5 }} />
      <Button variant="text" onClick={stopSearch}>
        {seconds > 1 ? `Cancel (${spokenTime(seconds)} so far)` : "Cancel"}
      </Button>
    </Box>
  );
}

/** Looks at the whole route, from above where one looks along it. */
function ShowWay({ points }: { points: RouteAnswer["points_m"] }) {
  const { fitTo } = useCameraCommands();
  const show = () => {
    const places = points.map((p) => new Vector3().fromArray(p));
    void fitTo({ kind: "points", points: places, cause: "fit: route" });
  };
  return points.length ? (
    <Button variant="text" onClick={show}>
      Fit the route
    </Button>
  ) : null;
}

/** Lets the server bring the map into memory while somebody chooses where to go. */
function useReady() {
  const { federation, projectId } = useOpen();
  const body = useRouteBody();
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
