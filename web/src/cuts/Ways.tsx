import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { type ReactNode, useState } from "react";
import { STOREY_CUT_M } from "../api/constants";
import { useShownLevel } from "../open/plan/storey";
import { useKeyPlan } from "../open/plan/useInstrument";
import { useRoomHere } from "../open/plan/useRoomHere";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Figures } from "../parts/Figures";
import { tone } from "../style/theme";
import { waysAcross } from "./axes";
import { liftLid } from "./lid";
import { useCuts } from "./useCuts";

function Line({ children }: { children: ReactNode }) {
  return <Box sx={{ display: "flex", gap: 0.75, alignItems: "end", mb: 1 }}>{children}</Box>;
}

/** The ways to make a cut. */
export function Ways() {
  const { federation, stage } = useOpen();
  const cuts = useCuts();
  const { level: shown } = useShownLevel();
  const plan = useKeyPlan(shown);
  const [level, setLevel] = useState<number | null>(null);
  const units = useUnits();
  const [typed, setOver] = useState<string[] | null>(null);
  const over = typed ?? [units.typed(STOREY_CUT_M)];
  const [tag, setTag] = useState("");
  const [looking, setLooking] = useState("");
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
        <Box sx={{ width: units.sign === "ft" ? 92 : 74 }}>
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
      <Button variant="text" onClick={() => liftLid(federation, stage(), at)}>
        Lift or replace its lid
      </Button>
      {axis && (
        <>
          <DeskHeading>Cut along a grid line</DeskHeading>
          <Line>
            <NativeSelect
              value={axis.tag}
              inputProps={{ "aria-label": "Grid line to cut along" }}
              sx={{ fontSize: 13, flex: 1 }}
              onChange={(event) => {
                setTag(event.target.value);
                setLooking("");
              }}
            >
              {axes.map((each) => (
                <option key={each.tag}>{each.tag}</option>
              ))}
            </NativeSelect>
            <NativeSelect
              value={looking}
              inputProps={{ "aria-label": "Which way to look" }}
              sx={{ fontSize: 13 }}
              onChange={(event) => setLooking(event.target.value)}
            >
              <option value="">as seen now</option>
              {waysAcross(axis, federation.building_north_deg).map((way) => (
                <option key={way.words} value={way.bearingDeg}>
                  {way.words}
                </option>
              ))}
            </NativeSelect>
            <Button
              variant="outlined"
              aria-label="Cut along it"
              onClick={() => void cuts.grid(axis, looking === "" ? null : Number(looking))}
            >
              Cut
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
        <Button variant="outlined" onClick={cuts.drawn}>
          Box between two corners
        </Button>
        <Button variant="outlined" onClick={cuts.aroundPicked}>
          Box around the selection
        </Button>
        {room !== null && (
          <>
            <Button variant="outlined" onClick={() => cuts.openRoom(room)}>
              Room opened towards me
            </Button>
            <Button variant="outlined" onClick={() => cuts.aroundRoom(room)}>
              Box around this room
            </Button>
          </>
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
