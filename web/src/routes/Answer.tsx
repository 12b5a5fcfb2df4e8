import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Vector3 } from "three";
import type { Shapes } from "../api/client";
import { DeskHeading, DeskNote } from "../desk/Desk";
import { numberOf, useSession } from "../project/session";
import { useOpen } from "../project/useStage";
import { face, tone } from "../theme";
import { announce } from "../trail/cause";
import { difference, type RouteAnswer, spokenTime, useRouteState } from "./routeState";

const BACK_M = 2.2;
const EYE_M = 1.6;

/** Look at a place of a route from a little before it, and pick what makes it. */
function useLookAt() {
  const { stage, federation } = useOpen();
  return (at: readonly number[], components: readonly Shapes["NamedComponent"][], cause: string) => {
    const view = stage();
    if (!view) return;
    const { answer } = useRouteState.getState();
    const point = new Vector3().fromArray(at as number[]);
    const points = (answer?.points_m ?? []).map((p) => new Vector3().fromArray(p));
    const before = points
      .filter((p) => p.distanceTo(point) > BACK_M)
      .sort((a, b) => a.distanceTo(point) - b.distanceTo(point))[0];
    const way = point.clone().sub(before ?? point.clone().add(new Vector3(0, -1, 0)));
    way.z = 0;
    way.setLength(BACK_M);
    const pose = view.pose;
    pose.projection = "perspective";
    pose.angleDeg = 65;
    pose.eye.copy(point).sub(way).z += EYE_M;
    pose.target.copy(point).z += EYE_M * 0.75;
    pose.up.set(0, 0, 1);
    announce(cause);
    view.go(pose);
    useSession
      .getState()
      .pick(components.map((c) => numberOf(federation, c.model, c.global_id)).filter((n) => n >= 0));
  };
}

function Figure({ label, value }: { label: string; value: string }) {
  return (
    <Box
      sx={{
        display: "flex",
        justifyContent: "space-between",
        borderBottom: `1px solid ${tone.line}`,
        py: 0.3,
      }}
    >
      <Box sx={{ color: tone.soft }}>{label}</Box>
      <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>{value}</Box>
    </Box>
  );
}

/** A tight place: its size, and who makes it; a click looks at it. */
function Tight({ label, pinch }: { label: string; pinch: Shapes["RoutePinch"] }) {
  const lookAt = useLookAt();
  return (
    <Box
      component="button"
      type="button"
      onClick={() => lookAt(pinch.at_m, pinch.components, `${label}: ${pinch.size_m.toFixed(2)} m`)}
      sx={{
        display: "block",
        width: "100%",
        textAlign: "left",
        border: 0,
        borderBottom: `1px solid ${tone.line}`,
        bgcolor: "transparent",
        p: 0,
        py: 0.4,
        cursor: "pointer",
        font: "inherit",
        color: "inherit",
        "&:hover": { bgcolor: "#efebe2" },
      }}
    >
      <Box sx={{ display: "flex", justifyContent: "space-between" }}>
        <Box sx={{ color: tone.soft }}>{label}</Box>
        <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>{pinch.size_m.toFixed(2)} m</Box>
      </Box>
      <Box sx={{ fontSize: 12.5 }}>
        {pinch.components.map((c) => `${c.label}${c.discipline ? `, ${c.discipline}` : ""}`).join(" and ")}
      </Box>
    </Box>
  );
}

function NoWay({ blocked }: { blocked: Shapes["RouteBlocked"] }) {
  const lookAt = useLookAt();
  return (
    <Box data-testid="no-way">
      <Box sx={{ fontWeight: 600, color: tone.wrong, mt: 1 }}>There is no way.</Box>
      <Box sx={{ my: 0.5 }}>{blocked.needs}</Box>
      {blocked.components.map((c) => (
        <Box key={c.global_id} sx={{ fontSize: 12.5 }}>
          {c.label}, {c.model_name}
        </Box>
      ))}
      <Button
        variant="outlined"
        sx={{ mt: 1 }}
        onClick={() => lookAt(blocked.nearest_m, blocked.components, "where the route ends")}
      >
        Show where it ends
      </Button>
    </Box>
  );
}

/** What a route is like, or why there is none. */
export function Answer({ answer }: { answer: RouteAnswer }) {
  const before = useRouteState((s) => s.before);
  const changed = before ? difference(before, answer) : "";
  if (answer.blocked) return <NoWay blocked={answer.blocked} />;
  return (
    <Box data-testid="route-answer">
      <DeskHeading>The quickest way</DeskHeading>
      {changed && <DeskNote>{changed}</DeskNote>}
      <Figure label="Length" value={`${(answer.length_m ?? 0).toFixed(2)} m`} />
      <Figure label="Time" value={spokenTime(answer.time_s ?? 0)} />
      <Figure label="Up" value={`${(answer.rise_m ?? 0).toFixed(2)} m`} />
      <Figure label="Down" value={`${(answer.descent_m ?? 0).toFixed(2)} m`} />
      <Figure label="Risers" value={`${answer.risers ?? 0}`} />
      {answer.narrowest && <Tight label="Narrowest" pinch={answer.narrowest} />}
      {answer.lowest && <Tight label="Lowest headroom" pinch={answer.lowest} />}
      {answer.pinches.length > 0 && <DeskHeading>Pinches</DeskHeading>}
      {answer.pinches.map((pinch) => (
        <Tight
          key={`${pinch.what} ${pinch.along_m}`}
          label={`${pinch.what === "width" ? "Width" : "Headroom"} after ${pinch.along_m.toFixed(0)} m`}
          pinch={pinch}
        />
      ))}
    </Box>
  );
}
