import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useSelection } from "../open/selection";
import { useViewState } from "../open/visibility/viewState";
import { DeskHeading, DeskNote } from "../parts/desk";
import { counted } from "../parts/words";
import { CutRow } from "./CutRow";
import { useCutFaces } from "./faces";
import { Sheets } from "./Sheets";
import { Ways } from "./Ways";

/** The cuts of the view: those there are, and the ways to make one. */
export function CutsDesk() {
  const cuts = useViewState((s) => s.cuts);
  const change = useViewState((s) => s.change);
  const { data, error } = useCutFaces();
  const on = cuts.filter((cut) => !cut.off).length;
  return (
    <Box>
      <DeskHeading>{cuts.length ? counted(cuts.length, "cut") : "Cuts"}</DeskHeading>
      {!cuts.length && (
        <DeskNote>
          No cuts yet. A cut removes everything in front of it and hatches what it passes through by
          discipline.
        </DeskNote>
      )}
      {cuts.map((cut) => (
        <CutRow key={cut.id} cut={cut} faces={data?.faces.filter((face) => face.cut === cut.id)} />
      ))}
      {error && <DeskNote>{error.message}</DeskNote>}
      {on > 1 && (
        <Button
          variant="text"
          onClick={() =>
            change({ cuts: cuts.map((cut) => ({ ...cut, off: true })) }, "switched all cuts off")
          }
        >
          Switch all off
        </Button>
      )}
      <Whole />
      <Sheets />
      <Ways />
    </Box>
  );
}

/** What no cut goes through. */
function Whole() {
  const whole = useViewState((s) => s.whole);
  const cuts = useViewState((s) => s.cuts);
  const change = useViewState((s) => s.change);
  const refs = useSelection((s) => s.refs);
  const count = Object.values(whole).reduce((n, ids) => n + ids.length, 0);
  if (!cuts.length && !count) return null;
  const keep = () => {
    const of: Record<string, string[]> = Object.fromEntries(
      Object.entries(whole).map(([model, ids]) => [model, [...ids]]),
    );
    for (const { model, global_id } of refs) {
      const ids = of[model] ?? [];
      if (!ids.includes(global_id)) of[model] = [...ids, global_id];
    }
    change({ whole: of }, `kept ${counted(refs.length, "component")} uncut`);
  };
  return (
    <Box sx={{ mt: 1, fontSize: 13 }} data-testid="whole">
      {count > 0 && (
        <Box>
          {counted(count, "component")} {count > 1 ? "stay" : "stays"} uncut.
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="text" disabled={!refs.length} onClick={keep}>
          Keep the selection uncut
        </Button>
        {count > 0 && (
          <Button variant="text" onClick={() => change({ whole: {} }, "cut everything")}>
            Cut all
          </Button>
        )}
      </Box>
    </Box>
  );
}
