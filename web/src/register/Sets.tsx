import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { bytesOf } from "../api/client";
import { useTyped } from "../open/drafts";
import { useSelection } from "../open/selection";
import { draftOf } from "../open/selections/conditions";
import { numbersIn } from "../open/selections/groups";
import { useRegister } from "../open/selections/registerState";
import { type ComponentSet, useMembers, useSetActs, useSets } from "../open/selections/useSets";
import type { Selector } from "../open/visibility/selectors";
import { DeskActs, DeskHeading, DeskNote } from "../parts/desk";
import { Only } from "../parts/Only";
import { SeeingActs } from "../parts/SeeingActs";
import { face, tone } from "../style/theme";
import { useConditions } from "./useSchedule";

/** The project's sets, and keeping the conditions as one. */
export function Sets() {
  const { data, error } = useSets();
  return (
    <Box>
      <Only to="change folders, sets and routes">
        <KeepSet />
      </Only>
      <DeskHeading>Sets</DeskHeading>
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && (
        <DeskNote>No sets yet. Conditions saved under a name update with newer models.</DeskNote>
      )}
      {data?.map((set) => (
        <SetRow key={set.id} set={set} />
      ))}
    </Box>
  );
}

function KeepSet() {
  const { set, steps, sums, columns, put } = useRegister();
  const conditions = useConditions();
  const layout = { steps, sums, columns };
  const { data } = useSets();
  const { keep, change } = useSetActs();
  const { typed: name, type: setName, kept } = useTyped("a set");
  if (!conditions.length) return null;
  const own = data?.find((each) => each.id === set?.id);
  const same =
    own &&
    JSON.stringify([own.conditions, own.steps, own.sums, own.columns]) ===
      JSON.stringify([conditions, steps, sums, columns]);
  const done = async () => {
    if (!name.trim()) return;
    const made = await keep(name.trim(), conditions, layout);
    if (!made) return;
    kept(name);
    put({ set: { id: made.id, name: made.name } });
  };
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        void done();
      }}
      sx={{ mt: 1 }}
    >
      {own && !same && (
        <Button variant="text" sx={{ ml: 0 }} onClick={() => void change(own, own.name, conditions, layout)}>
          Change the set {own.name} to this
        </Button>
      )}
      <Box sx={{ display: "flex", gap: 0.5 }}>
        <Box
          component="input"
          aria-label="Name of a new set"
          placeholder="Save as a set…"
          value={name}
          maxLength={80}
          onChange={(event) => setName(event.target.value)}
          sx={{
            flex: 1,
            minWidth: 0,
            fontSize: 13,
            fontFamily: "inherit",
            color: tone.ink,
            border: `1px solid ${tone.line}`,
            px: 0.5,
            py: 0.4,
            bgcolor: "#fff",
          }}
        />
        <Button type="submit" variant="outlined" disabled={!name.trim()} sx={{ color: tone.ink }}>
          Keep
        </Button>
      </Box>
    </Box>
  );
}

function SetRow({ set }: { set: ComponentSet }) {
  const { set: chosen, put } = useRegister();
  const { data, error } = useMembers(set.conditions);
  const { remove } = useSetActs();
  const select: Selector = { kind: "where", of: set.conditions, called: set.name };
  const pick = () =>
    data && useSelection.getState().pick(numbersIn(new Uint8Array(bytesOf(data.met)), (met) => met > 0));
  return (
    <Box data-testid="set" sx={{ py: 0.75, borderTop: `1px solid ${tone.line}`, fontSize: 13 }}>
      <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
        <Box sx={{ fontWeight: 600, color: chosen?.id === set.id ? tone.here : tone.ink }}>{set.name}</Box>
        <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>{data ? data.count : error ? "?" : "…"}</Box>
      </Box>
      <DeskNote>{error ? error.message : set.says}</DeskNote>
      <DeskActs>
        <Button
          variant="text"
          onClick={() =>
            put({
              drafts: set.conditions.map(draftOf),
              set: { id: set.id, name: set.name },
              open: [],
              ...(set.steps.length ? { steps: set.steps, sums: set.sums, columns: set.columns } : {}),
            })
          }
        >
          List
        </Button>
        <Button variant="text" disabled={!data?.count} onClick={pick}>
          Select
        </Button>
        <SeeingActs select={select} />
        <Only to="change folders, sets and routes">
          <Button variant="text" onClick={() => void remove(set)}>
            Delete
          </Button>
        </Only>
      </DeskActs>
    </Box>
  );
}
