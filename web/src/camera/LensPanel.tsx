import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import Slider from "@mui/material/Slider";
import { type FormEvent, useEffect, useState } from "react";
import { useHabits } from "../open/habits";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { announce } from "../open/trail/cause";
import { useOpen } from "../open/useStage";
import { PanelHeading, Row } from "../parts/Panel";
import { focalMm, type Pose, withAngle } from "../stage/pose";
import { tone } from "../style/theme";
import { SCALES } from "./scales";

const LEAST_DEG = 1;
const MOST_DEG = 120;

export function spokenLens(angleDeg: number): string {
  return `${focalMm(angleDeg).toFixed(focalMm(angleDeg) < 100 ? 1 : 0)} mm · ${angleDeg.toFixed(1)}°`;
}

/** The lens: angle or focal length, typed or dragged; projection; true scale. */
export function LensPanel() {
  const { eye, stage } = useOpen();
  const look = useCameraCommands();
  const [pose, setPose] = useState<Pose | null>(eye.last);
  const [typed, setTyped] = useState("");
  useEffect(() => eye.listen((p) => setPose({ ...p })), [eye]);
  if (!pose) return null;
  const parallel = pose.projection === "parallel";
  const drag = (keep: "eye" | "subject") => (_: Event, value: number | number[]) => {
    const view = stage();
    if (!view || Array.isArray(value)) return;
    announce(`lens: ${value.toFixed(0)}°`);
    view.take(view.keptInside(withAngle(view.seen, value, keep)));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim()) void look.lens(typed, "eye");
    setTyped("");
  };
  return (
    <Box sx={{ p: 1.5, width: 310 }} data-testid="lens-panel">
      <PanelHeading>Lens, on a frame 36 mm wide</PanelHeading>
      <Box data-testid="lens-figures" sx={{ fontSize: 15, mb: 0.75 }}>
        {spokenLens(pose.angleDeg)}
      </Box>
      <Box component="form" onSubmit={submit} sx={{ display: "flex", gap: 0.75, mb: 1 }}>
        <OutlinedInput
          size="small"
          value={typed}
          placeholder="60 or 35 mm"
          onChange={(event) => setTyped(event.target.value)}
          inputProps={{ "aria-label": "Angle of view or focal length" }}
        />
        <Button onClick={() => void look.lens("60", "eye")} variant="outlined">
          Inside
        </Button>
        <Button onClick={() => void look.lens("30", "subject")} variant="outlined">
          Outside
        </Button>
      </Box>
      <Handle name="Keep position, change angle of view" value={pose.angleDeg} onChange={drag("eye")} />
      <Handle name="Keep subject size, move the eye" value={pose.angleDeg} onChange={drag("subject")} />
      <Row>
        <Button
          variant={parallel ? "outlined" : "contained"}
          onClick={() => void look.projection("perspective")}
        >
          Perspective
        </Button>
        <Button
          variant={parallel ? "contained" : "outlined"}
          onClick={() => void look.projection("parallel")}
        >
          Parallel
        </Button>
      </Row>
      <Scale />
    </Box>
  );
}

function Handle(props: {
  name: string;
  value: number;
  onChange: (event: Event, value: number | number[]) => void;
}) {
  return (
    <Box sx={{ mb: 0.5 }}>
      <Box sx={{ fontSize: 12, color: tone.soft }}>{props.name}</Box>
      <Slider
        size="small"
        color="secondary"
        min={LEAST_DEG}
        max={MOST_DEG}
        step={0.1}
        value={props.value}
        onChange={props.onChange}
        aria-label={props.name}
      />
    </Box>
  );
}

/** True scale, from the size of a pixel that is declared for this screen. */
function Scale() {
  const look = useCameraCommands();
  const { pixelMm, set } = useHabits();
  const [typed, setTyped] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const scale = Number(typed.replace(/^1:/, ""));
    if (typed.trim()) void look.scale(Number.isFinite(scale) ? scale : 0);
    setTyped("");
  };
  return (
    <>
      <PanelHeading>True scale in a parallel view</PanelHeading>
      <Row>
        {SCALES.map((scale) => (
          <Button key={scale} variant="outlined" onClick={() => void look.scale(scale)}>
            1:{scale}
          </Button>
        ))}
      </Row>
      <Box component="form" onSubmit={submit} sx={{ display: "flex", gap: 0.75, alignItems: "center" }}>
        <OutlinedInput
          size="small"
          value={typed}
          placeholder="1:75"
          onChange={(event) => setTyped(event.target.value)}
          inputProps={{ "aria-label": "Scale" }}
          sx={{ width: 84 }}
        />
        <Box sx={{ fontSize: 12, color: tone.soft }}>pixel</Box>
        <OutlinedInput
          size="small"
          type="number"
          value={Number(pixelMm.toFixed(4))}
          onChange={(event) => {
            const mm = Number(event.target.value);
            if (mm > 0) set({ pixelMm: mm });
          }}
          inputProps={{ "aria-label": "Millimetres per pixel", step: 0.001, min: 0.01 }}
          sx={{ width: 92 }}
        />
        <Box sx={{ fontSize: 12, color: tone.soft }}>mm</Box>
      </Box>
    </>
  );
}
