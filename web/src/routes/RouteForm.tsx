import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { type FormEvent, useState } from "react";
import { useTools } from "../open/tools";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { presentWalker } from "../open/walking/useWalk";
import { BodySelect } from "../parts/BodySelect";
import { DeskHeading } from "../parts/desk";
import { NO_MATCH, rank } from "../parts/matches";
import { Tick } from "../parts/Tick";
import { type RoutePlace, typedMetres, useRouteState } from "./routeState";
import { endTool } from "./tools";
import { useRoute } from "./useRoute";
import { useRouteBody } from "./useShownWay";

/** From, to, who, and what counts as a pinch. */
export function RouteForm() {
  const { start, end, stepFree, widthLimitM, heightLimitM, searching, set } = useRouteState();
  const body = useRouteBody();
  const { find } = useRoute();
  const units = useUnits();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void find();
  };
  return (
    <form onSubmit={submit}>
      <DeskHeading>Route</DeskHeading>
      <Where label="From" which="start" value={start} onChange={(place) => set({ start: place })} />
      <Where label="To" which="end" value={end} onChange={(place) => set({ end: place })} />
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", my: 0.5 }}>
        <BodySelect label="Body" value={body} onChange={(name) => set({ body: name })} />
        <Tick label="no stairs" on={stepFree} set={(on) => set({ stepFree: on })} />
      </Box>
      <Box sx={{ display: "flex", gap: 1, my: 1, alignItems: "start" }}>
        <Limit
          label={`Narrower than, ${units.sign}`}
          mostM={3}
          value={widthLimitM}
          onChange={(v) => set({ widthLimitM: v })}
        />
        <Limit
          label={`Lower than, ${units.sign}`}
          mostM={6}
          value={heightLimitM}
          onChange={(v) => set({ heightLimitM: v })}
        />
      </Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained" disabled={searching !== null || !start || !end}>
          Find route
        </Button>
        <Button variant="text" onClick={() => set({ start: end, end: start })} disabled={!start && !end}>
          Reverse
        </Button>
      </Box>
    </form>
  );
}

function Limit(props: { label: string; value: number; mostM: number; onChange: (value: number) => void }) {
  const units = useUnits();
  const [typed, setTyped] = useState(units.typed(props.value));
  const refused = typedMetres(typed, props.mostM) === null;
  return (
    <TextField
      size="small"
      label={props.label}
      value={typed}
      error={refused}
      helperText={
        refused
          ? `0 to ${units.length(props.mostM, 0)}, such as ${units.length(0.9, 2)}; ${units.length(props.value, 2)} counts.`
          : ""
      }
      onChange={(event) => {
        setTyped(event.target.value);
        const value = typedMetres(event.target.value, props.mostM);
        if (value !== null) props.onChange(value);
      }}
      slotProps={{ htmlInput: { inputMode: "decimal" }, formHelperText: { sx: { mx: 0, fontSize: 12 } } }}
    />
  );
}

/** Rooms whose number or name has what was typed in it; those that begin with it come first. */
function fitting(options: RoutePlace[], typed: string): RoutePlace[] {
  const wanted = typed.trim().toLowerCase();
  const order = (place: RoutePlace) => rank((place.label ?? "").toLowerCase(), wanted);
  return options.filter((o) => order(o) < NO_MATCH).sort((a, b) => order(a) - order(b));
}

function Where(props: {
  label: string;
  which: "start" | "end";
  value: RoutePlace | null;
  onChange: (place: RoutePlace | null) => void;
}) {
  const { federation, stage } = useOpen();
  const take = useTools((s) => s.take);
  const rooms = federation.rooms.map((room, index) => ({
    room: index,
    label: `${room.number} ${room.name}`.trim(),
  }));
  const here = () => {
    const at = presentWalker()?.feet ?? stage()?.pose.eye;
    if (at) props.onChange({ point_m: at.toArray(), label: "where the eye is" });
  };
  return (
    <Box sx={{ mb: 0.75 }}>
      <Autocomplete<RoutePlace>
        size="small"
        options={rooms}
        value={props.value}
        onChange={(_, value) => props.onChange(value)}
        getOptionLabel={(place) => place.label ?? ""}
        isOptionEqualToValue={(a, b) => a.room === b.room && a.label === b.label}
        filterOptions={(options, { inputValue }) => fitting(options, inputValue)}
        renderInput={(params) => <TextField {...params} label={props.label} />}
        slotProps={{ paper: { sx: { fontSize: 13 } } }}
      />
      <Box sx={{ display: "flex", gap: 1.25 }}>
        <Button variant="text" onClick={here}>
          The eye
        </Button>
        <Button variant="text" onClick={() => take(endTool(props.which))}>
          Point on a floor
        </Button>
      </Box>
    </Box>
  );
}
