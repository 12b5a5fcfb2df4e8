import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Vector3 } from "three";
import { useWalking } from "../api/queries";
import { ALONG_A_ROUTE, announce } from "../open/trail/cause";
import { useUnits } from "../open/units";
import { usePlaying } from "../open/usePlaying";
import { useOpen } from "../open/useStage";
import { Tour } from "../open/walking/tour";
import { DeskHeading } from "../parts/desk";
import { Handle, Speeds } from "../parts/playing";
import { eyesOf } from "../stage/movers/walking";
import { face } from "../style/theme";
import type { RouteAnswer } from "./routeState";
import { useRouteBody } from "./useShownWay";

const SPEEDS = [1, 2, 4] as const;
const LENS_DEG = 65;

/** Plays a route with pause, speed and a handle to be anywhere on it. */
export function WalkIt({ answer }: { answer: RouteAnswer }) {
  const { stage, projectId } = useOpen();
  const body = useRouteBody();
  const { data } = useWalking(projectId, body);
  const units = useUnits();
  const who = data?.bodies.find((b) => b.name === body);
  const tour = useMemo(() => new Tour(answer.points_m.map((p) => new Vector3().fromArray(p))), [answer]);
  const [along, setAlong] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [times, setTimes] = useState(1);
  const at = useRef(0);

  const be = useCallback(
    (metres: number) => {
      at.current = metres;
      begun.current = true;
      setAlong(metres);
      const view = stage();
      if (!view) return;
      const pose = view.pose;
      pose.projection = "perspective";
      pose.angleDeg = LENS_DEG;
      const feet = tour.at(metres);
      pose.eye.copy(feet).z += eyesOf(who?.height_m ?? 1.8);
      const look = tour.ahead(metres);
      // Stairs are looked along, not at.
      look.z *= 0.25;
      pose.target.copy(pose.eye).add(look);
      pose.up.set(0, 0, 1);
      announce(ALONG_A_ROUTE);
      view.take(pose, "went");
    },
    [stage, tour, who],
  );

  const begun = useRef(false);
  // Another body has its eyes elsewhere.
  useEffect(() => {
    if (begun.current) be(at.current);
  }, [be]);

  const pace = (answer.length_m ?? 1) / Math.max(1, answer.time_s ?? 1);
  const on = (seconds: number) => {
    const next = Math.min(tour.lengthM, at.current + seconds * pace * times);
    be(next);
    return next < tour.lengthM;
  };
  usePlaying(playing, on, () => setPlaying(false));

  const play = () => {
    if (!playing && at.current >= tour.lengthM) at.current = 0;
    setPlaying(!playing);
  };
  return (
    <Box data-testid="walk-it">
      <DeskHeading>Walk this route</DeskHeading>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <Button variant="contained" onClick={play}>
          {playing ? "Pause" : "Walk"}
        </Button>
        <Speeds speeds={SPEEDS} times={times} be={setTimes} />
        <Box sx={{ ml: "auto", fontFamily: face.figure, fontSize: 12.5, whiteSpace: "nowrap" }}>
          {units.length(along, 1)}
        </Box>
      </Box>
      <Handle
        label="Where on the route"
        at={along}
        end={tour.lengthM}
        be={(metres) => {
          setPlaying(false);
          be(metres);
        }}
      />
    </Box>
  );
}
