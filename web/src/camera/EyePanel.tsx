import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import type { Federation } from "../api/client";
import { useHabits } from "../open/habits";
import { overStorey } from "../open/levels";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { announce } from "../open/trail/cause";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { LengthInput } from "../parts/LengthInput";
import { PanelHeading, Row } from "../parts/Panel";
import { copyPose, type Pose } from "../stage/pose";
import { tone } from "../style/theme";

const REACH_M = 500;

/** How high the eye and its target are above their storeys, shown and typed; the view made level. */
export function EyePanel() {
  const { eye, federation, stage } = useOpen();
  const look = useCameraCommands();
  const { eyeHeightM, set } = useHabits();
  const [pose, setPose] = useState<Pose | null>(eye.last);
  useEffect(() => eye.listen((p) => setPose({ ...p })), [eye]);
  if (!pose) return null;
  const change = (part: "eye" | "target") => (overM: number) => {
    const view = stage();
    if (!view) return;
    const next = copyPose(view.pose);
    const z = overStorey(federation.levels, view.pose[part].z).floorM + overM;
    // Who stands higher or lower looks as level as before.
    if (part === "eye") next.target.z += z - next.eye.z;
    next[part].z = z;
    announce(part === "eye" ? "eye height" : "target height");
    view.go(next);
  };
  return (
    <Box sx={{ p: 1.5, width: 300 }} data-testid="eye-panel">
      <PanelHeading>Heights above the storey</PanelHeading>
      <Height name="Eye" federation={federation} z={pose.eye.z} onChange={change("eye")} />
      <Height name="Target" federation={federation} z={pose.target.z} onChange={change("target")} />
      <PanelHeading>Standing from the key plan</PanelHeading>
      <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, mb: 1, fontSize: 13 }}>
        <Box sx={{ flex: 1 }}>eye above the floor</Box>
        <LengthInput
          label="Eye height on the key plan"
          value={eyeHeightM}
          least={0.1}
          most={REACH_M}
          keep={(metres) => metres !== null && set({ eyeHeightM: metres })}
        />
      </Box>
      <Row>
        <Button variant="outlined" onClick={() => void look.level()}>
          Make the view level
        </Button>
      </Row>
      <DepthLimit />
    </Box>
  );
}

function Height(props: {
  name: string;
  federation: Federation;
  z: number;
  onChange: (overM: number) => void;
}) {
  const { name, overM } = overStorey(props.federation.levels, props.z);
  const units = useUnits();
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, mb: 0.5, fontSize: 13 }}>
      <Box sx={{ width: 50 }}>{props.name}</Box>
      <LengthInput
        label={`${props.name} height above the storey`}
        value={overM}
        least={-REACH_M}
        most={REACH_M}
        keep={(metres) => metres !== null && props.onChange(metres)}
      />
      <Box sx={{ color: tone.soft }}>
        {units.sign} over {name}
      </Box>
    </Box>
  );
}

/** How far the view sees beyond its target; off unless it is asked for. */
function DepthLimit() {
  const limit = useViewState((s) => s.depthM);
  const units = useUnits();
  const take = (metres: number | null) =>
    useViewState
      .getState()
      .change(
        { depthM: metres },
        metres === null
          ? "removed the depth limit"
          : `limited the view to ${units.length(metres, 2)} beyond the target`,
      );
  return (
    <>
      <PanelHeading>Depth</PanelHeading>
      <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, fontSize: 13 }}>
        <Box sx={{ flex: 1 }}>limit beyond the target</Box>
        <LengthInput
          label="Depth beyond the target"
          value={limit}
          placeholder="all"
          least={0}
          most={1e6}
          keep={take}
        />
      </Box>
    </>
  );
}
