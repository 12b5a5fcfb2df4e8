import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useState } from "react";
import { PAPERS } from "../api/constants";
import type { Cut } from "../open/cuts/shape";
import { useTaskActs } from "../open/tasks/useTasks";
import { useUnits } from "../open/units";
import { type Rule, useViewState } from "../open/visibility/viewState";
import { Figures } from "../parts/Figures";
import { tone } from "../style/theme";

const METRIC = [5, 10, 20, 50, 100, 200, 500] as const;
/** Inches to the foot, as scales of one to so many. */
const IMPERIAL = [
  ["3\" = 1'", 4],
  ["1 1/2\" = 1'", 8],
  ["1\" = 1'", 12],
  ["1/2\" = 1'", 24],
  ["1/4\" = 1'", 48],
  ["1/8\" = 1'", 96],
] as const;
const DEPTH_M = 3;
const SCALE = 50;

/** Draws a cut to scale on a sheet. */
export function SheetForm({ cut, done }: { cut: Cut; done: () => void }) {
  const units = useUnits();
  const { ask } = useTaskActs();
  const [scale, setScale] = useState(units.sign === "ft" ? 48 : SCALE);
  const [paper, setPaper] = useState("");
  const [depth, setDepth] = useState([units.typed(cut.shape.kind === "band" ? cut.shape.thick_m : DEPTH_M)]);
  const [busy, setBusy] = useState(false);
  const depth_m = units.parse(depth[0] ?? "");
  const { shape } = cut;
  if (shape.kind === "box") return null;
  const draw = async () => {
    if (depth_m === null || depth_m < 0) return;
    setBusy(true);
    const rules = useViewState.getState().rules as Rule[];
    const id = await ask(cut.name || "Cut", {
      kind: "sheet",
      shape,
      rules,
      scale,
      depth_m,
      paper: paper || null,
    });
    setBusy(false);
    if (id) done();
  };
  const selects = { fontSize: 13 };
  return (
    <Box
      component="form"
      data-testid="sheet-form"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault();
        void draw();
      }}
      sx={{ borderLeft: `3px solid ${tone.here}`, pl: 1, my: 0.75, display: "grid", gap: 0.75 }}
    >
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "auto minmax(0, 1fr)",
          columnGap: 1,
          rowGap: 0.25,
          alignItems: "center",
          fontSize: 13,
        }}
      >
        <span>Scale</span>
        <NativeSelect
          value={scale}
          inputProps={{ "aria-label": "Scale of the sheet" }}
          sx={selects}
          onChange={(event) => setScale(Number(event.target.value))}
        >
          {METRIC.map((each) => (
            <option key={each} value={each}>
              1:{each}
            </option>
          ))}
          {IMPERIAL.map(([words, each]) => (
            <option key={each} value={each}>
              {words}
            </option>
          ))}
        </NativeSelect>
        <span>Sheet</span>
        <NativeSelect
          value={paper}
          inputProps={{ "aria-label": "Size of the sheet" }}
          sx={selects}
          onChange={(event) => setPaper(event.target.value)}
        >
          <option value="">the smallest that fits</option>
          {PAPERS.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </NativeSelect>
      </Box>
      <Figures
        labels={[`depth behind the cut, ${units.sign}`]}
        about="of the sheet"
        values={depth}
        set={setDepth}
        parse={units.parse}
      />
      {units.wrong(depth) && <Box sx={{ fontSize: 12, color: tone.wrong }}>{units.wrong(depth)}</Box>}
      <Button type="submit" variant="outlined" disabled={busy || depth_m === null || depth_m < 0}>
        Draw the sheet
      </Button>
    </Box>
  );
}
