import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useTools } from "../open/tools";
import { useWalk } from "../open/walking/useWalk";
import { useWalkState } from "../open/walking/walkState";
import { BodySelect } from "../parts/BodySelect";
import { Tick } from "../parts/Tick";
import { face, tone } from "../style/theme";
import { StopLine } from "./StopLine";
import { jumpTool, throughTool } from "./tools";

const sheet = {
  bgcolor: tone.paper,
  border: `1px solid ${tone.ink}`,
  boxShadow: "3px 3px 0 rgba(30,43,54,.15)",
} as const;

/** Who walks or flies, how fast, and where to next; only while somebody does. */
export function WalkBar() {
  const mode = useWalkState((s) => s.mode);
  if (mode === "orbit") return null;
  return (
    <Box
      sx={{
        position: "absolute",
        left: 12,
        top: 10,
        display: "grid",
        gap: 0.75,
        justifyItems: "start",
        maxWidth: "calc(100% - 24px)",
      }}
    >
      <Box
        data-testid="walk-bar"
        sx={{
          ...sheet,
          px: 1.25,
          py: 0.5,
          display: "flex",
          gap: 1.5,
          alignItems: "center",
          whiteSpace: "nowrap",
          "& .MuiButton-root + .MuiButton-root": { ml: 0 },
        }}
      >
        {mode === "walk" ? <OnFoot /> : <Aloft />}
      </Box>
      <StopLine />
    </Box>
  );
}

function Speed() {
  const speed = useWalkState((s) => s.speedMs);
  return (
    <Box
      title="Wheel changes the speed; Shift is faster"
      sx={{ fontFamily: face.figure, fontSize: 12.5, whiteSpace: "nowrap" }}
    >
      {speed.toFixed(1)} m/s
    </Box>
  );
}

function OnFoot() {
  const { body, behind } = useWalkState();
  const walk = useWalk();
  const take = useTools((s) => s.take);
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: face.head, fontSize: 13.5 }}>On foot</Box>
      <BodySelect label="Body" variant="standard" value={body} onChange={(name) => void walk.setBody(name)} />
      <Speed />
      <Button variant="outlined" onClick={() => walk.storey(1)} title="Page Up">
        Storey up
      </Button>
      <Button variant="outlined" onClick={() => walk.storey(-1)} title="Page Down">
        Down
      </Button>
      <Button variant="text" onClick={() => take(jumpTool(walk))} title="J">
        Jump
      </Button>
      <Button variant="text" onClick={() => take(throughTool(walk))} title="N">
        Through
      </Button>
      <Tick label="behind" on={behind} set={walk.showBehind} />
      <Button variant="text" onClick={walk.orbit} title="G">
        Stop
      </Button>
    </>
  );
}

function Aloft() {
  const walk = useWalk();
  const stops = useWalkState((s) => s.flyStops);
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: face.head, fontSize: 13.5 }}>Flying</Box>
      <Speed />
      <Tick label="stop at surfaces" on={stops} set={walk.setFlyStops} />
      <Button variant="text" onClick={walk.orbit} title="F">
        Stop
      </Button>
    </>
  );
}
