import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { Vector3 } from "three";
import type { Shapes } from "../api/client";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { usePlacing } from "../open/markups/usePlacing";
import { numberOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import type { Measure } from "../open/visibility/viewState";
import { DeskActs } from "../parts/desk";
import { NameField } from "../parts/NameField";
import { face, tone } from "../style/theme";
import { CALLED, full, read } from "./figures";
import { changeMeasure, type Found, removeMeasure, useMeasuring } from "./measuring";

const MAINS = [
  ["distance", "straight"],
  ["plan", "on plan"],
  ["up", "up"],
  ["east", "east–west"],
  ["north", "north–south"],
] as const;

const HOWS = [
  ["nearest", "at their nearest points"],
  ["centre_lines", "centre line to centre line"],
] as const;

/** One measure: its figures, what it is of, and what can be done with it. */
export function MeasureRow({ measure, found }: { measure: Measure; found: Found | undefined }) {
  const opened = useMeasuring((s) => s.opened === measure.id);
  const units = useUnits();
  const main = found?.figures[0];
  const title = measure.name || (main ? CALLED[main.name] : "a measure");
  return (
    <Box data-testid="measure" sx={{ borderTop: `1px solid ${tone.line}`, py: 0.75 }}>
      <Box
        component="button"
        type="button"
        aria-expanded={opened}
        onClick={() => useMeasuring.setState({ opened: opened ? null : measure.id })}
        sx={{
          border: 0,
          p: 0,
          width: "100%",
          minHeight: 28,
          bgcolor: "transparent",
          textAlign: "left",
          cursor: "pointer",
          font: "inherit",
          display: "flex",
          justifyContent: "space-between",
          alignItems: "baseline",
          gap: 1,
          color: opened ? tone.here : tone.ink,
        }}
      >
        <Box component="span" sx={{ fontSize: 13, overflowWrap: "anywhere" }}>
          {title}
        </Box>
        <Box
          component="span"
          sx={{ fontFamily: face.figure, fontSize: 15, fontWeight: 600, whiteSpace: "nowrap" }}
        >
          {main ? read(main, units) : found ? "" : "..."}
        </Box>
      </Box>
      {found?.trouble && <Box sx={{ fontSize: 12.5, color: tone.wrong }}>{found.trouble}</Box>}
      {found?.note && <Box sx={{ fontSize: 12.5 }}>{found.note}</Box>}
      {found && <Parts of={found.of} />}
      {opened && found && (
        <>
          <Others found={found} />
          <Choice measure={measure} />
          <NameField
            label="Name"
            field={`name of measure ${measure.id}`}
            about="Name of the measure"
            value={measure.name}
            keep={(name) => changeMeasure(measure.id, { name }, `named a measure ${name}`)}
          />
        </>
      )}
      <Acts measure={measure} found={found} />
    </Box>
  );
}

const ROLES: Readonly<Record<Shapes["PartMeasured"]["role"], string>> = {
  from: "from",
  to: "to",
  of: "of",
  above: "above it",
  beside: "beside it",
  floor: "on",
  above_hidden: "above it, hidden:",
  beside_hidden: "beside it, hidden:",
};

/** So many of a measure's components are named. */
const MOST_PARTS = 8;

/** The components that a measure is of; a click picks one. */
function Parts({ of }: { of: Found["of"] }) {
  const { federation } = useOpen();
  const pick = (part: Found["of"][number]) => {
    const number = numberOf(federation, part.model, part.global_id);
    if (number >= 0) useSelection.getState().pick([number]);
  };
  const known = of.filter((part) => numberOf(federation, part.model, part.global_id) >= 0);
  const words = of.filter((part) => !known.includes(part));
  return (
    <Box sx={{ fontSize: 12.5, color: tone.soft }}>
      {words.map((part) => part.label).join(", ")}
      {known.slice(0, MOST_PARTS).map((part) => (
        <Box key={`${part.role} ${part.model} ${part.global_id}`}>
          {ROLES[part.role]}{" "}
          <Box
            component="button"
            type="button"
            title="Select"
            onClick={() => pick(part)}
            sx={{
              border: 0,
              p: 0,
              bgcolor: "transparent",
              font: "inherit",
              color: tone.ink,
              cursor: "pointer",
              textAlign: "left",
              textDecoration: "underline",
              textDecorationColor: tone.line,
            }}
          >
            {part.label}
          </Box>
          , {part.model_name}
        </Box>
      ))}
      {known.length > MOST_PARTS && <Box>and {known.length - MOST_PARTS} more</Box>}
    </Box>
  );
}

/** All its other figures. */
function Others({ found }: { found: Found }) {
  const units = useUnits();
  const main = found.figures[0];
  return (
    <Box sx={{ my: 0.5 }} data-testid="figures">
      {found.figures.slice(1).map((figure, k) => (
        <Box
          // biome-ignore lint/suspicious/noArrayIndexKey: the figures of a measure keep their order
          key={k}
          sx={{
            display: "flex",
            justifyContent: "space-between",
            borderBottom: `1px solid ${tone.line}`,
            py: 0.25,
          }}
        >
          <Box sx={{ color: tone.soft, fontSize: 12.5 }}>
            {CALLED[figure.name]}
            {figure.name === "leg" && ` ${k + 1}`}
          </Box>
          <Box sx={{ fontFamily: face.figure, fontSize: 12.5 }}>{read(figure, units)}</Box>
        </Box>
      ))}
      {main?.name === "square" && <Box sx={{ fontSize: 12, color: tone.soft }}>They are parallel.</Box>}
    </Box>
  );
}

/** Which figure is the main one, or between what of two components. */
function Choice({ measure }: { measure: Measure }) {
  const { what } = measure;
  if (what.kind !== "points" && what.kind !== "between") return null;
  const options = what.kind === "points" ? MAINS : HOWS;
  const value = what.kind === "points" ? what.main : what.how;
  const choose = (chosen: string) => {
    const main = MAINS.find(([name]) => name === chosen)?.[0];
    const how = HOWS.find(([name]) => name === chosen)?.[0];
    if (what.kind === "points" && main)
      changeMeasure(measure.id, { what: { ...what, main } }, "changed the main figure of a measure");
    if (what.kind === "between" && how)
      changeMeasure(measure.id, { what: { ...what, how } }, "changed the lines of a measure");
  };
  return (
    <NativeSelect
      value={value}
      inputProps={{ "aria-label": what.kind === "points" ? "Main figure" : "Between what" }}
      sx={{ fontSize: 13, mb: 0.5 }}
      onChange={(event) => choose(event.target.value)}
    >
      {options.map(([name, words]) => (
        <option key={name} value={name}>
          {words}
        </option>
      ))}
    </NativeSelect>
  );
}

/** In the middle of the first of some lines. */
function middleOf([a = new Vector3(), b = a]: readonly Vector3[]): Vector3 {
  return a.clone().add(b).multiplyScalar(0.5);
}

function Acts({ measure, found }: { measure: Measure; found: Found | undefined }) {
  const { fitTo } = useCameraCommands();
  const { federation } = useOpen();
  const { write } = usePlacing();
  const units = useUnits();
  const say = useSession((s) => s.say);
  const points = (found?.dimensions ?? []).flatMap(({ line }) => line.map((p) => new Vector3().fromArray(p)));
  const components = (found?.of ?? [])
    .map((part) => numberOf(federation, part.model, part.global_id))
    .filter((n) => n >= 0);
  const main = found?.figures[0];
  const look = () => {
    useMeasuring.setState({ opened: measure.id });
    if (points.length) void fitTo({ kind: "points", points, cause: "went to a measure" });
    else void fitTo({ kind: "components", components });
  };
  const copy = async () => {
    if (!main) return;
    const text = full(main, units);
    try {
      await navigator.clipboard.writeText(text);
      say(`Copied: ${text}.`);
    } catch {
      say(`The browser did not allow copying: ${text}.`);
    }
  };
  return (
    <DeskActs>
      <Button variant="text" disabled={!points.length && !components.length} onClick={look}>
        Look at it
      </Button>
      <Button variant="text" disabled={!main} onClick={() => void copy()}>
        Copy
      </Button>
      <Button
        variant="text"
        disabled={!main || !points.length}
        onClick={() =>
          main && void write(middleOf(points), [measure.name, read(main, units)].join(" ").trim())
        }
      >
        Write on the view
      </Button>
      <Button variant="text" onClick={() => removeMeasure(measure.id)}>
        Delete
      </Button>
    </DeskActs>
  );
}
