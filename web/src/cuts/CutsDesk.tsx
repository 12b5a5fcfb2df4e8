import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { type ReactNode, useState } from "react";
import { useKeyPlan, useShownLevel } from "../keyplan/useInstrument";
import { useRoomHere } from "../keyplan/useRoomHere";
import { useSeen } from "../open/seen";
import { useSelection } from "../open/selection";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Figures } from "../parts/Figures";
import { counted } from "../parts/words";
import { tone } from "../theme";
import { CutRow } from "./CutRow";
import { useCutFaces } from "./faces";
import { Sheets } from "./Sheets";
import { STOREY_CUT_M, useCuts } from "./useCuts";

/** The cuts of the view: those there are, and the ways to make one. */
export function CutsDesk() {
  const cuts = useSeen((s) => s.cuts);
  const change = useSeen((s) => s.change);
  const { data, error } = useCutFaces();
  const on = cuts.filter((cut) => !cut.off).length;
  return (
    <Box>
      <DeskHeading>{cuts.length ? counted(cuts.length, "cut") : "Cuts"}</DeskHeading>
      {!cuts.length && (
        <DeskNote>
          Nothing is cut. A cut takes away all that lies before it; what it goes through is hatched by
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
          switch all off
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
  const whole = useSeen((s) => s.whole);
  const cuts = useSeen((s) => s.cuts);
  const change = useSeen((s) => s.change);
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
    change({ whole: of }, `kept ${counted(refs.length, "component")} whole`);
  };
  return (
    <Box sx={{ mt: 1, fontSize: 13 }} data-testid="whole">
      {count > 0 && (
        <Box>
          {counted(count, "component")} {count > 1 ? "stay" : "stays"} whole.
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="text" disabled={!refs.length} onClick={keep}>
          keep what is picked whole
        </Button>
        {count > 0 && (
          <Button variant="text" onClick={() => change({ whole: {} }, "cut everything again")}>
            cut all
          </Button>
        )}
      </Box>
    </Box>
  );
}

function Line({ children }: { children: ReactNode }) {
  return <Box sx={{ display: "flex", gap: 0.75, alignItems: "end", mb: 1 }}>{children}</Box>;
}

/** The ways to make a cut. */
function Ways() {
  const { federation } = useOpen();
  const cuts = useCuts();
  const { level: shown } = useShownLevel();
  const plan = useKeyPlan(shown);
  const [level, setLevel] = useState<number | null>(null);
  const units = useUnits();
  const [typed, setOver] = useState<string[] | null>(null);
  const over = typed ?? [units.typed(STOREY_CUT_M)];
  const [tag, setTag] = useState("");
  const at = Math.max(0, level ?? shown);
  const axes = plan?.axes ?? [];
  const axis = axes.find((a) => a.tag === tag) ?? axes[0];
  const height = units.parse(over[0] ?? "");
  const room = useRoomHere(plan, shown);
  return (
    <>
      <DeskHeading>Cut at a height</DeskHeading>
      <Line>
        <NativeSelect
          value={at}
          inputProps={{ "aria-label": "Storey to cut" }}
          sx={{ fontSize: 13, flex: 1 }}
          onChange={(event) => setLevel(Number(event.target.value))}
        >
          {federation.levels.map((each, k) => (
            <option key={each.name} value={k}>
              {each.name}
            </option>
          ))}
        </NativeSelect>
        <Box sx={{ width: 74 }}>
          <Figures
            labels={[`${units.sign} above`]}
            about="the storey"
            values={over}
            set={setOver}
            parse={units.parse}
          />
        </Box>
        <Button
          variant="outlined"
          disabled={height === null}
          onClick={() => height !== null && cuts.storey(at, height)}
        >
          Cut
        </Button>
      </Line>
      {units.wrong(over) && <DeskNote>{units.wrong(over)}</DeskNote>}
      {axis && (
        <>
          <DeskHeading>Cut along a grid line</DeskHeading>
          <Line>
            <NativeSelect
              value={axis.tag}
              inputProps={{ "aria-label": "Grid line to cut along" }}
              sx={{ fontSize: 13, flex: 1 }}
              onChange={(event) => setTag(event.target.value)}
            >
              {axes.map((each) => (
                <option key={each.tag}>{each.tag}</option>
              ))}
            </NativeSelect>
            <Button variant="outlined" onClick={() => void cuts.grid(axis)}>
              Cut along it
            </Button>
          </Line>
        </>
      )}
      <DeskHeading>Cut elsewhere</DeskHeading>
      <Box
        sx={{ display: "grid", gap: 0.75, justifyItems: "start", "& button": { color: tone.ink } }}
        data-testid="cut-ways"
      >
        <Button variant="outlined" onClick={cuts.facing}>
          Square to this view
        </Button>
        <Button variant="outlined" onClick={cuts.face}>
          Along a face
        </Button>
        <Button variant="outlined" onClick={cuts.points}>
          Through three points
        </Button>
        <Button variant="outlined" onClick={cuts.aroundPicked}>
          Box around what is picked
        </Button>
        {room !== null && (
          <Button variant="outlined" onClick={() => cuts.aroundRoom(room)}>
            Box around this room
          </Button>
        )}
        <Button variant="outlined" onClick={() => cuts.aroundStorey(at)}>
          Box around {federation.levels[at]?.name}
        </Button>
        <Button variant="outlined" onClick={() => cuts.ceilingVoid(at)}>
          Ceiling void of {federation.levels[at]?.name}
        </Button>
      </Box>
    </>
  );
}
