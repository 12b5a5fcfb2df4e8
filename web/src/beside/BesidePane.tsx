import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useEffect, useRef, useState } from "react";
import { useFollowCut } from "../open/drawings/cutDrawing";
import { type Drawing, sameDrawing, spokenDrawing } from "../open/drawings/drawing";
import { useBeside } from "../open/drawings/shown";
import { useDrawings } from "../open/drawings/useDrawings";
import { useHabits } from "../open/habits";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { Divider } from "../parts/Divider";
import { Slot } from "../parts/feature";
import { HoverLabel, RegionBox } from "../parts/StageSigns";
import { DRAWINGS, type DrawingKind } from "../stage/view";
import { STRIP, tone } from "../style/theme";
import { DrawingSigns } from "./DrawingSigns";
import { EyeOnDrawing } from "./EyeOnDrawing";
import { OtherOnDrawing } from "./OtherOnDrawing";

/** A drawing beside the stage, or two, one above the other: the same building, the same picks, and the stage's eye in them. */
export function BesidePane() {
  const shown = useBeside();
  const { besideShare: share, set } = useHabits();
  const open = DRAWINGS.filter((of) => shown[of] !== null);
  if (!open.length) return null;
  return (
    <Box
      data-testid="beside"
      sx={{
        flex: `0 0 ${share * 100}%`,
        minWidth: 240,
        minHeight: 0,
        display: "grid",
        gridTemplateRows: open.map(() => "minmax(0, 1fr)").join(" "),
        pointerEvents: "auto",
        position: "relative",
        borderLeft: `1px solid ${tone.ink}`,
      }}
    >
      <Divider
        label="Width of the drawing, per cent"
        value={share * 100}
        least={20}
        most={75}
        step={5}
        usual={44}
        at={shareAt}
        put={(percent) => set({ besideShare: percent / 100 })}
      />
      <RoomForBoth />
      {open.map((of) => {
        const drawing = shown[of];
        return drawing && <Opened key={of} of={of} drawing={drawing} />;
      })}
    </Box>
  );
}

function Opened({ of, drawing }: { of: DrawingKind; drawing: Drawing }) {
  const { stage, drawn } = useOpen();
  const drawings = useDrawings(of);
  const sheet = useRef<HTMLDivElement>(null);
  const [ready, setReady] = useState(false);
  const first = useRef({ drawing, show: drawings.show });
  useEffect(() => {
    const [element, view] = [sheet.current, stage()];
    if (!element || !view) return;
    view.openDrawing(of, element, { ...view.pose, projection: "parallel" });
    first.current.show(first.current.drawing, true);
    setReady(true);
    return () => {
      view.closeDrawing(of);
      drawn[of].forget();
    };
  }, [of, stage, drawn]);
  const picked = useSelection((s) => s.picked);
  useEffect(() => {
    const last = picked.at(-1);
    if (ready && last !== undefined) drawings.bring(last);
  }, [picked, ready, drawings]);
  useFollowCut(of, drawing, ready);
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateRows: "34px minmax(0,1fr) 40px",
        minHeight: 0,
        borderTop: of === "second" ? `1px solid ${tone.ink}` : 0,
      }}
    >
      <Heading of={of} drawing={drawing} drawings={drawings} />
      <Box
        ref={sheet}
        data-testid={of === "drawing" ? "drawing" : "second-drawing"}
        aria-label={`${spokenDrawing(drawing)}; drag to pan, wheel to zoom`}
        sx={{
          position: "relative",
          minHeight: 0,
          overflow: "hidden",
          touchAction: "none",
          userSelect: "none",
        }}
      >
        {ready && <DrawingSigns of={of} drawing={drawing} />}
        {ready && <OtherOnDrawing of={of} />}
        {ready && <EyeOnDrawing of={of} drawing={drawing} />}
        <RegionBox where={of} />
        <HoverLabel where={of} />
      </Box>
      <Box sx={{ bgcolor: STRIP, borderTop: `1px solid ${tone.line}`, px: 1, minWidth: 0 }}>
        <Slot of="underDrawing" told={{ of }} />
      </Box>
    </Box>
  );
}

/** How much of the room for both a drawing takes that begins so far from the window's left, per cent. */
function shareAt(pane: HTMLElement, clientX: number): number {
  const whole = pane.parentElement?.getBoundingClientRect();
  return whole ? ((whole.right - clientX) / whole.width) * 100 : 0;
}

const WIDE_ENOUGH_PX = 1500;

/** Where the window is narrow, the storey board folds to its edge while a drawing is open. */
function RoomForBoth() {
  useEffect(() => {
    const { folded, fold } = useSession.getState();
    if (folded.board || window.innerWidth >= WIDE_ENOUGH_PX) return;
    fold("board", true);
    return () => fold("board", false);
  }, []);
  return null;
}

function Heading(props: { of: DrawingKind; drawing: Drawing; drawings: ReturnType<typeof useDrawings> }) {
  const { of, drawing, drawings } = props;
  const { plans, elevations, cuts } = drawings;
  const { close, open } = useBeside.getState();
  const other = DRAWINGS.find((each) => each !== of) ?? of;
  const alone = useBeside((s) => s[other] === null);
  // Beside a plan a side of the building, and beside a side a plan.
  const missing = drawing.kind === "plan" ? (cuts[0] ?? elevations[0]) : plans[0];
  const all = [...plans, ...elevations, ...cuts];
  const at = all.findIndex((d) => sameDrawing(d, drawing));
  const option = (d: Drawing) => (
    <option key={spokenDrawing(d)} value={all.indexOf(d)}>
      {spokenDrawing(d)}
    </option>
  );
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1.25,
        px: 1.25,
        bgcolor: tone.paper,
        borderBottom: `1px solid ${tone.line}`,
        minWidth: 0,
      }}
    >
      <NativeSelect
        value={at < 0 ? "own" : at}
        onChange={(event) => {
          if (event.target.value === "look") drawings.asStageLooks();
          const wanted = all[Number(event.target.value)];
          if (wanted) drawings.show(wanted);
        }}
        inputProps={{
          "aria-label": of === "drawing" ? "Drawing beside the stage" : "Second drawing beside the stage",
        }}
        sx={{ fontSize: 13, fontWeight: 600, minWidth: 0, flex: "0 1 auto" }}
      >
        <optgroup label="Plans">{plans.map(option)}</optgroup>
        <optgroup label="Elevations">
          {elevations.map(option)}
          <option value="look">Same direction as the stage</option>
        </optgroup>
        {cuts.length > 0 && <optgroup label="Cuts">{cuts.map(option)}</optgroup>}
        {at < 0 && <option value="own">{spokenDrawing(drawing)}</option>}
      </NativeSelect>
      <Box sx={{ flex: 1 }} />
      {alone && missing && (
        <Button variant="text" onClick={() => open(other, missing)} sx={{ whiteSpace: "nowrap" }}>
          Second drawing
        </Button>
      )}
      <Button variant="text" onClick={() => drawings.fitTo(drawing)}>
        Fit
      </Button>
      <Button variant="text" onClick={() => close(of)} sx={{ whiteSpace: "nowrap" }}>
        Close
      </Button>
    </Box>
  );
}
