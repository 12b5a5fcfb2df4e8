import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useShownLevel } from "../open/plan/storey";
import { useKeyPlan } from "../open/plan/useInstrument";
import { useRoomHere } from "../open/plan/useRoomHere";
import { useSelection } from "../open/selection";
import { useTools } from "../open/tools";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { DeskHeading, DeskNote } from "../parts/desk";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { MeasureRow } from "./MeasureRow";
import { useFound } from "./useFound";
import { useMeasureTools } from "./useMeasureTools";

/** The measures of the view: those there are, and the ways to take one. */
export function MeasuresDesk() {
  const measures = useViewState((s) => s.measures);
  const change = useViewState((s) => s.change);
  const { of, error } = useFound();
  return (
    <Box>
      <DeskHeading>{measures.length ? counted(measures.length, "measure") : "Measures"}</DeskHeading>
      {!measures.length && (
        <DeskNote>No measures yet. Measures are saved with the view, its viewpoints and links.</DeskNote>
      )}
      <Ways />
      {error && <DeskNote>{error.message}</DeskNote>}
      {[...measures].reverse().map((measure) => (
        <MeasureRow key={measure.id} measure={measure} found={of(measure)} />
      ))}
      {measures.length > 1 && (
        <Button variant="text" onClick={() => change({ measures: [] }, "deleted all measures")}>
          Delete all
        </Button>
      )}
    </Box>
  );
}

/** The ways to take a measure. */
function Ways() {
  const { federation } = useOpen();
  const takes = useMeasureTools();
  const inHand = useTools((s) => s.tool?.name);
  const picked = useSelection((s) => s.refs.length);
  const { level } = useShownLevel();
  const here = useRoomHere(useKeyPlan(level), level);
  const room = here === null ? undefined : federation.rooms[here];
  const ways: readonly (readonly [string, string | null, () => void])[] = [
    ["Distance", "measure points", takes.points],
    ["Chain", "measure chain", takes.chain],
    [picked === 2 ? "Between the two selected" : "Between two components", "measure between", takes.between],
    ["Two faces or edges", "measure sides", takes.sides],
    ["Room at a point", "measure clear", takes.clear],
    ["Area of a face", "measure face", takes.face],
  ];
  return (
    <Box
      data-testid="measure-ways"
      sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, my: 1, "& button": { color: tone.ink } }}
    >
      {ways.map(([name, tool, take]) => (
        <Button
          key={name}
          variant="outlined"
          aria-pressed={tool === inHand}
          sx={tool === inHand ? { "&, &:hover": { boxShadow: `inset 0 -3px 0 ${tone.here}` } } : {}}
          onClick={() => (tool === inHand ? useTools.getState().putAway() : take())}
        >
          {name}
        </Button>
      ))}
      {room && here !== null && (
        <Button variant="outlined" onClick={() => takes.room(here)}>
          Area of {`${room.number} ${room.name}`.trim()}
        </Button>
      )}
      {picked > 0 && (
        <Button variant="outlined" onClick={takes.volume}>
          Volume of the selection
        </Button>
      )}
    </Box>
  );
}
