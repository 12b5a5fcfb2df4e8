import Box from "@mui/material/Box";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { EyePanel } from "../camera/EyePanel";
import { LensPanel, spokenLens } from "../camera/LensPanel";
import { useHabits } from "../open/habits";
import { overStorey } from "../open/levels";
import { useNorth } from "../open/plan/useInstrument";
import { type Panel, useTools } from "../open/tools";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { PanelOver } from "../parts/PanelOver";
import { Unseen } from "../parts/Unseen";
import { looking, type Pose } from "../stage/pose";
import { face, tone } from "../style/theme";
import { LookPanel } from "./LookPanel";
import { UnitsPanel } from "./UnitsPanel";

/** Where the window is narrow, the figures stand closer and their names are cut short. */
const NARROW = "@container (max-width: 1100px)";

const READ = { m: "m", mm: "mm", ft: "ft, in 1/16", ft_decimal: "ft, in .00" } as const;

/** How the eye stands: written straight to the page at every frame, without rendering React. */
export function Readouts() {
  const { eye, federation, stage } = useOpen();
  const north = useNorth();
  const trueNorth = useHabits((s) => s.trueNorth);
  const pixelMm = useHabits((s) => s.pixelMm);
  const units = useUnits();
  const refs = useRef<Partial<Record<Panel, HTMLSpanElement>>>({});
  useEffect(
    () =>
      eye.listen((pose: Pose) => {
        const { bearingDeg, tiltDeg } = looking(pose);
        const own = (bearingDeg - north + 720) % 360;
        const { name, overM } = overStorey(federation.levels, pose.eye.z);
        const scale = (pose.heightM * 1000) / ((stage()?.canvas.clientHeight ?? 1) * pixelMm);
        const texts: Partial<Record<Panel, string>> = {
          lens:
            pose.projection === "parallel" ? `parallel 1:${scale.toPrecision(3)}` : spokenLens(pose.angleDeg),
          look: `${(Math.round(own) % 360).toString().padStart(3, "0")}° · ${Math.abs(tiltDeg).toFixed(0)}°${tiltDeg >= 0.5 ? " down" : tiltDeg <= -0.5 ? " up" : ""}`,
          units: READ[units.units],
          eye: `${units.signed(overM, 2)} over ${name.replace(/^Level /, "")}`,
        };
        for (const [key, span] of Object.entries(refs.current) as [Panel, HTMLSpanElement][])
          span.textContent = texts[key] ?? "";
      }),
    [eye, federation, north, stage, pixelMm, units],
  );
  const ref = (figure: Panel) => (span: HTMLSpanElement | null) => {
    if (span) refs.current[figure] = span;
  };
  return (
    <Box sx={{ display: "flex", gap: 2.5, whiteSpace: "nowrap", [NARROW]: { gap: 1.25 } }}>
      <Readout panel="lens" name="Lens" innerRef={ref("lens")}>
        <LensPanel />
      </Readout>
      <Readout
        name={trueNorth ? "Look, true north" : "Look, building north"}
        panel="look"
        innerRef={ref("look")}
      >
        <LookPanel />
      </Readout>
      <Readout panel="eye" name="Eye" innerRef={ref("eye")}>
        <EyePanel />
      </Readout>
      <Readout panel="units" name="Lengths" innerRef={ref("units")}>
        <UnitsPanel />
      </Readout>
    </Box>
  );
}

function Readout(props: {
  panel: Panel;
  name: string;
  innerRef: React.Ref<HTMLSpanElement>;
  children: ReactNode;
}) {
  const open = useTools((s) => s.panel === props.panel);
  const show = useTools((s) => s.showPanel);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <Box>
      <Box
        component="button"
        type="button"
        ref={setAnchor}
        aria-expanded={open}
        onClick={() => show(props.panel)}
        sx={{
          border: 0,
          bgcolor: "transparent",
          p: 0,
          textAlign: "left",
          cursor: "pointer",
          color: tone.ink,
          "&:hover span": { textDecoration: "underline" },
        }}
      >
        <Box
          sx={{
            fontFamily: face.head,
            fontWeight: 600,
            fontSize: 12,
            letterSpacing: ".05em",
            color: tone.soft,
            textTransform: "uppercase",
            [NARROW]: { maxWidth: 76, overflow: "hidden", textOverflow: "ellipsis" },
          }}
        >
          <Unseen>{props.name}: change</Unseen>
          <span aria-hidden>{props.name} ▴</span>
        </Box>
        <Box component="span" ref={props.innerRef} sx={{ fontFamily: face.figure, fontSize: 12.5 }} />
      </Box>
      <PanelOver panel={props.panel} anchor={anchor} side="above">
        {props.children}
      </PanelOver>
    </Box>
  );
}
