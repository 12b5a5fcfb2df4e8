import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import type { Shapes } from "../api/client";
import { changeCut, keepMoved, removeCut, reshaped, useCutting } from "../open/cuts/cutting";
import { added, type Cut, flipped, sidesOf } from "../open/cuts/shape";
import { useDrawings } from "../open/drawings/useDrawings";
import { useShownLevel } from "../open/plan/storey";
import { useKeyPlan } from "../open/plan/useInstrument";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskActs } from "../parts/desk";
import { Figures } from "../parts/Figures";
import { NameField } from "../parts/NameField";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { Facing } from "./Facing";
import { positionOf } from "./position";
import { SheetForm } from "./SheetForm";

/** One cut: its name, what it goes through, and what can be done with it. */
export function CutRow({ cut, faces }: { cut: Cut; faces: Shapes["CutFace"][] | undefined }) {
  const opened = useCutting((s) => s.opened === cut.id);
  const { name, off, shape } = cut;
  const { showCut } = useDrawings();
  const [drawing, setDrawing] = useState(false);
  return (
    <Box
      data-testid="cut"
      data-off={off ? "yes" : "no"}
      sx={{ borderTop: `1px solid ${tone.line}`, py: 0.75 }}
    >
      <Box
        component="button"
        type="button"
        aria-expanded={opened}
        onClick={() => useCutting.setState({ opened: opened ? null : cut.id })}
        sx={{
          border: 0,
          p: 0,
          bgcolor: "transparent",
          textAlign: "left",
          cursor: "pointer",
          fontFamily: "inherit",
          fontWeight: 600,
          fontSize: 14,
          color: off ? tone.soft : tone.ink,
          overflowWrap: "anywhere",
        }}
      >
        {name}
        {off && " (switched off)"}
      </Box>
      {!off && <Through faces={faces} />}
      {opened && (
        <>
          <NameField
            label="Name"
            field={`name of cut ${cut.id}`}
            about="Name of the cut"
            value={cut.name}
            keep={(wanted) => changeCut(cut.id, { name: wanted }, `named a cut ${wanted}`)}
          />
          <Sizes cut={cut} />
          <Facing cut={cut} />
        </>
      )}
      <DeskActs>
        <Button
          variant="text"
          onClick={() => changeCut(cut.id, { off: !off }, `switched ${off ? "on" : "off"} the cut ${name}`)}
        >
          {off ? "Switch on" : "Switch off"}
        </Button>
        {shape.kind !== "box" && (
          <Button
            variant="text"
            onClick={() => changeCut(cut.id, { shape: flipped(shape) }, `flipped the cut ${name}`)}
          >
            Flip
          </Button>
        )}
        {shape.kind !== "box" && (
          <>
            <Button variant="text" onClick={() => showCut(cut)}>
              Beside
            </Button>
            <Button variant="text" aria-expanded={drawing} onClick={() => setDrawing(!drawing)}>
              Sheet
            </Button>
          </>
        )}
        <Button variant="text" onClick={() => removeCut(cut.id)}>
          Remove
        </Button>
      </DeskActs>
      {drawing && <SheetForm cut={cut} done={() => setDrawing(false)} />}
    </Box>
  );
}

/** What the cut goes through, and what of it is not closed. */
function Through({ faces }: { faces: Shapes["CutFace"][] | undefined }) {
  const units = useUnits();
  if (!faces) return <Box sx={{ fontSize: 12.5, color: tone.soft }}>...</Box>;
  const area = faces.reduce((sum, face) => sum + face.area_m2, 0);
  const through = faces.reduce((most, face) => Math.max(most, face.components), 0);
  const open = new Map(faces.flatMap((face) => face.open).map((c) => [c.global_id, c]));
  return (
    <Box sx={{ fontSize: 12.5, color: tone.soft }} data-testid="cut-through">
      {through ? `Cuts ${counted(through, "component")}, ${units.area(area)}` : "Cuts no components"}
      {open.size > 0 && (
        <Box sx={{ color: tone.wrong }}>
          {counted(open.size, "component")} not closed, so not filled:{" "}
          {[...open.values()]
            .slice(0, 3)
            .map((c) => `${c.label} by ${units.length(c.gap_m)}`)
            .join(", ")}
          {open.size > 3 && " ..."}
        </Box>
      )}
    </Box>
  );
}

/** Its figures, to be typed. */
function Sizes({ cut }: { cut: Cut }) {
  const { federation } = useOpen();
  const units = useUnits();
  const { shape } = cut;
  const { level: shown } = useShownLevel();
  const axes = useKeyPlan(shown)?.axes ?? [];
  const [side] = sidesOf(shape);
  const at = side && shape.kind !== "box" ? positionOf(side, federation, axes) : null;
  const labels =
    shape.kind === "box"
      ? [`long, ${units.sign}`, `wide, ${units.sign}`, `high, ${units.sign}`]
      : [
          ...(at ? [`${units.sign} ${at.from}`] : []),
          ...(shape.kind === "band" ? [`thick, ${units.sign}`] : []),
        ];
  const now =
    shape.kind === "box"
      ? shape.size_m
      : [...(at ? [at.distanceM] : []), ...(shape.kind === "band" ? [shape.thick_m] : [])];
  const texts = now.map(units.typed);
  const [values, setValues] = useState(texts);
  const key = texts.join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is typed is given up when the cut is moved
  useEffect(() => setValues(texts), [key]);
  if (!labels.length) return null;
  const keep = () => {
    const typed = values.map(units.parse);
    if (typed.some((v) => v === null) || values.join() === key) return;
    // What was left as it stood is as it was, not as it is read.
    const numbers = typed.map((v, k) => (values[k] === texts[k] ? (now[k] ?? 0) : (v ?? 0)));
    const sizes = shape.kind === "plane" ? [] : shape.kind === "band" ? numbers.slice(-1) : numbers;
    if (sizes.some((v) => v < 0.001)) return setValues(texts);
    if (shape.kind === "box")
      return changeCut(cut.id, { shape: { ...shape, size_m: numbers } }, `sized ${cut.name}`);
    if (!at || !side) return;
    const byM = at.along * ((numbers[0] ?? 0) - at.distanceM);
    const point_m = added(shape.point_m, side.normal, byM / Math.hypot(...side.normal));
    const part =
      shape.kind === "band"
        ? { ...shape, point_m, thick_m: numbers.at(-1) ?? shape.thick_m }
        : { ...shape, point_m };
    keepMoved(reshaped(federation, cut, part));
  };
  return (
    <Box
      component="form"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault();
        keep();
      }}
      onBlur={keep}
      sx={{ mb: 0.5 }}
    >
      <Figures labels={labels} about={`of ${cut.name}`} values={values} set={setValues} parse={units.parse} />
      <Box sx={{ fontSize: 12, color: tone.wrong }}>{units.wrong(values)}</Box>
      <button type="submit" hidden />
    </Box>
  );
}
