import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import type { FormEvent } from "react";
import type { Shapes } from "../api/client";
import { useRoutes } from "../api/queries";
import { useTyped } from "../open/drafts";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { USUAL_BODY } from "../open/walking/walkState";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { tone } from "../style/theme";
import { noAnswer, type RoutePlace, spokenTime, useRouteState } from "./routeState";
import { useRoute } from "./useRoute";

/** Routes that were kept: open one again, hand it on, delete it. Only one that answers its form can be kept (`current`). */
export function Kept({ current }: { current: boolean }) {
  const { projectId } = useOpen();
  const { data, error } = useRoutes(projectId);
  const answer = useRouteState((s) => s.answer);
  const { keep } = useRoute();
  const { typed: name, type: setName, kept } = useTyped("a route");
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { start, end } = useRouteState.getState().asked ?? useRouteState.getState();
    const plain = `${start?.label ?? "here"} to ${end?.label ?? "there"}`.slice(0, 120);
    if (await keep(name.trim() || plain)) kept(name);
  };
  return (
    <Box>
      <DeskHeading>Kept routes</DeskHeading>
      {answer && current && (
        <Only to="change folders, sets and routes">
          <Box component="form" onSubmit={submit} sx={{ display: "flex", gap: 0.75, mb: 1 }}>
            <OutlinedInput
              fullWidth
              size="small"
              value={name}
              placeholder="Name of this route"
              onChange={(event) => setName(event.target.value)}
              inputProps={{ "aria-label": "Name of the route", maxLength: 120 }}
            />
            <Button type="submit" variant="contained">
              Keep
            </Button>
          </Box>
        </Only>
      )}
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && <DeskNote>None yet.</DeskNote>}
      {data?.map((route) => (
        <Card key={route.id} route={route} />
      ))}
    </Box>
  );
}

function Card({ route }: { route: Shapes["SavedRoute"] }) {
  const { federation } = useOpen();
  const { find, remove } = useRoute();
  const units = useUnits();
  const { set } = useRouteState();
  /** A room is found by its name: its number may be another since. */
  const place = (kept: RoutePlace): RoutePlace => {
    const room = federation.rooms.findIndex((r) => `${r.number} ${r.name}`.trim() === kept.label);
    return kept.room != null && room >= 0 ? { ...kept, room } : kept;
  };
  const open = () => {
    const { wish } = route;
    set({
      start: place(wish.start),
      end: place(wish.end),
      body: wish.body ?? USUAL_BODY,
      stepFree: wish.step_free ?? false,
      widthLimitM: wish.width_limit_m ?? 0.9,
      heightLimitM: wish.height_limit_m ?? 2,
      ...noAnswer,
      answer: route.answer,
      first: route.answer,
    });
    void find(true);
  };
  const { answer } = route;
  return (
    <Box data-testid="kept-route" sx={{ borderTop: `1px solid ${tone.line}`, py: 0.75 }}>
      <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>{route.name}</Box>
      <Box sx={{ fontSize: 12.5, color: tone.soft }}>
        {route.wish.body},{" "}
        {answer.found
          ? `${units.length(answer.length_m ?? 0, 1)}, ${spokenTime(answer.time_s ?? 0)}`
          : "no way"}
        ; {route.author}
      </Box>
      <Button variant="text" onClick={open}>
        Open
      </Button>
      {(["json", "geojson", "csv"] as const).map((form) => (
        <Button key={form} variant="text" component="a" href={`/api/routes/${route.id}/${form}`} download>
          {form}
        </Button>
      ))}
      <Only to="change folders, sets and routes">
        <Button variant="text" onClick={() => void remove(route)}>
          Delete
        </Button>
      </Only>
    </Box>
  );
}
