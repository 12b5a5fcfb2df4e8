import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { type FormEvent, useEffect, useRef, useState } from "react";
import type { ModelCard } from "../api/client";
import { useUnits } from "../open/units";
import { Figures, parsed, wrongFigure } from "../parts/Figures";
import { face, tone } from "../style/theme";
import { useAligning } from "./alignState";
import { ByPoints } from "./ByPoints";
import { useAlign } from "./useAlign";

type Evidence = NonNullable<ModelCard["aligned_by"]>;

const EVIDENCE: Record<Evidence, string> = {
  map: "map conversion",
  grid: "grid",
  placement: "placement",
  hand: "hand",
};

/** How a model lines up and by what; another evidence, or a turn and a shift, can be said in place of it. */
export function Alignment({ model }: { model: ModelCard }) {
  const [open, setOpen] = useState(false);
  const aligning = useAligning((s) => s.modelId === model.id);
  const units = useUnits();
  if (!model.aligned_by) return null;
  const shift = (model.shift_m ?? [0, 0, 0]).map((c) => units.length(Math.abs(c) < 0.0005 ? 0 : c));
  return (
    <Box>
      Aligned by {EVIDENCE[model.aligned_by]}: {model.aligned_reason}
      <Box sx={{ fontFamily: face.figure, fontSize: 12, color: tone.soft }}>
        turn {(model.rotation_deg ?? 0).toFixed(3)}°, shift {shift.join(", ")}
      </Box>
      <Button variant="text" onClick={() => setOpen(!open)} aria-expanded={open || aligning}>
        {open ? "Cancel" : "Change alignment"}
      </Button>
      {(open || aligning) && <Otherwise key={shift.join()} model={model} />}
    </Box>
  );
}

function Otherwise({ model }: { model: ModelCard }) {
  const { align } = useAlign(model);
  const top = useRef<HTMLDivElement>(null);
  useEffect(() => {
    top.current?.scrollIntoView({ block: "nearest" });
  }, []);
  const by = model.aligned_set ?? "";
  const plain = (evidence: Evidence | null) => align({ by: evidence, rotation_deg: 0, shift_m: [0, 0, 0] });
  const units = useUnits();
  const [turned, setTurned] = useState([String(+(model.rotation_deg ?? 0).toFixed(4))]);
  const [shifted, setShifted] = useState((model.shift_m ?? [0, 0, 0]).map(units.typed));
  const [turn] = turned.map(parsed);
  const [x, y, z] = shifted.map(units.parse);
  const wrong = wrongFigure(turned) || units.wrong(shifted);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!wrong) align({ by: "hand", rotation_deg: turn ?? 0, shift_m: [x ?? 0, y ?? 0, z ?? 0] });
  };
  return (
    <Box ref={top} sx={{ borderLeft: `3px solid ${tone.here}`, pl: 1, my: 0.5, display: "grid", gap: 0.75 }}>
      <NativeSelect
        value={by === "hand" ? "hand" : by}
        inputProps={{ "aria-label": `How ${model.name} is aligned` }}
        sx={{ fontSize: 13 }}
        onChange={(event) => {
          const chosen = event.target.value;
          if (chosen === "map" || chosen === "grid" || chosen === "placement") plain(chosen);
          else if (chosen === "") plain(null);
        }}
      >
        <option value="">by the strongest evidence</option>
        {model.has_map && <option value="map">by its map conversion</option>}
        <option value="grid">by its grid</option>
        <option value="placement">by its placement</option>
        {by === "hand" && <option value="hand">by hand</option>}
      </NativeSelect>
      <Box component="form" onSubmit={submit} sx={{ display: "grid", gap: 0.75 }}>
        <Figures labels={["turn, degrees"]} about={`of ${model.name}`} values={turned} set={setTurned} />
        <Figures
          labels={[`shift x, ${units.sign}`, "y", "z"]}
          about={`of ${model.name}`}
          values={shifted}
          set={setShifted}
          parse={units.parse}
        />
        {wrong && <Box sx={{ color: tone.wrong }}>{wrong}</Box>}
        <Button type="submit" variant="outlined" sx={{ justifySelf: "start" }} disabled={wrong !== ""}>
          Apply
        </Button>
      </Box>
      <ByPoints model={model} />
    </Box>
  );
}
