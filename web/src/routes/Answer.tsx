import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Vector3 } from "three";
import type { Shapes } from "../api/client";
import { numberOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { announce } from "../open/trail/cause";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { face, tone } from "../style/theme";
import { placeBefore } from "./placeBefore";
import {
  difference,
  type RouteAnswer,
  spokenAvoided,
  spokenTime,
  useRouteState,
  wayShown,
} from "./routeState";

/** Stand before a place of a route, outline what makes it, and look there through the present lens. */
function useLookAt() {
  const { stage, federation } = useOpen();
  return (at: readonly number[], components: readonly Shapes["NamedComponent"][], cause: string) => {
    const view = stage();
    if (!view) return;
    const point = new Vector3().fromArray(at as number[]);
    const numbers = components.map((c) => numberOf(federation, c.model, c.global_id)).filter((n) => n >= 0);
    const points = (wayShown(useRouteState.getState())?.points_m ?? []).map((p) =>
      new Vector3().fromArray(p),
    );
    const pose = placeBefore(
      {
        pose: view.pose,
        boxOf: (those) => view.building.boxOf(those),
        clear: (from, to) => view.building.clear(from, to),
      },
      point,
      points,
      numbers,
    );
    announce(cause);
    view.go(pose);
    useRouteState.setState({ outlined: components, away: false });
    useSelection.getState().pick(numbers);
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
  const size = useUnits().length(pinch.size_m, 2);
  return (
    <Box
      component="button"
      type="button"
      onClick={() => lookAt(pinch.at_m, pinch.components, `${label}: ${size}`)}
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
        <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>{size}</Box>
      </Box>
      <Box sx={{ fontSize: 12.5 }}>
        {pinch.components.map((c) => `${c.label}${c.discipline ? `, ${c.discipline}` : ""}`).join(" and ")}
      </Box>
    </Box>
  );
}

function NoWay({ blocked }: { blocked: Shapes["RouteBlocked"] }) {
  const lookAt = useLookAt();
  const units = useUnits();
  return (
    <Box data-testid="no-way">
      <Box sx={{ fontWeight: 600, color: tone.wrong, mt: 1 }}>There is no route.</Box>
      <Box sx={{ my: 0.5 }}>{units.within(blocked.needs)}</Box>
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
        Show end
      </Button>
    </Box>
  );
}

/** What a route is like, or why there is none. */
export function Answer({ answer }: { answer: RouteAnswer }) {
  const units = useUnits();
  const first = useRouteState((s) => s.first);
  const other = useRouteState((s) => (s.chosen === null ? null : s.others?.[s.chosen]));
  const changed = first && !other ? difference(first, answer) : "";
  if (answer.blocked) return <NoWay blocked={answer.blocked} />;
  return (
    <Box data-testid="route-answer">
      <DeskHeading>{other ? "Another route" : "The quickest route"}</DeskHeading>
      {other && <DeskNote>It keeps away from {spokenAvoided(other.avoids)}.</DeskNote>}
      {changed && <DeskNote>{changed}</DeskNote>}
      <Figure label="Length" value={units.length(answer.length_m ?? 0, 2)} />
      <Figure label="Time" value={spokenTime(answer.time_s ?? 0)} />
      <Figure label="Up" value={units.length(answer.rise_m ?? 0, 2)} />
      <Figure label="Down" value={units.length(answer.descent_m ?? 0, 2)} />
      <Figure label="Risers" value={`${answer.risers ?? 0}`} />
      {answer.narrowest && <Tight label="Narrowest" pinch={answer.narrowest} />}
      {answer.lowest && <Tight label="Lowest headroom" pinch={answer.lowest} />}
      {answer.pinches.length > 0 && <DeskHeading>Pinches</DeskHeading>}
      {answer.pinches.map((pinch) => (
        <Tight
          key={`${pinch.what} ${pinch.along_m}`}
          label={`${pinch.what === "width" ? "Width" : "Headroom"} after ${units.length(pinch.along_m, 0)}`}
          pinch={pinch}
        />
      ))}
    </Box>
  );
}
