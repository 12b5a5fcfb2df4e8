import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Select from "@mui/material/Select";
import { useTools } from "../actions/tools";
import { useWalking } from "../api/queries";
import { useOpen } from "../project/useStage";
import { face, tone } from "../theme";
import { StopLine } from "./StopLine";
import { useWalk } from "./useWalk";
import { useWalkState } from "./walkState";

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
      title="The wheel changes it; Shift is faster"
      sx={{ fontFamily: face.figure, fontSize: 12.5, whiteSpace: "nowrap" }}
    >
      {speed.toFixed(1)} m/s
    </Box>
  );
}

function OnFoot() {
  const { projectId } = useOpen();
  const { body, behind } = useWalkState();
  const { data } = useWalking(projectId, body);
  const walk = useWalk();
  const take = useTools((s) => s.take);
  return (
    <>
      <Box sx={{ fontWeight: 600, fontFamily: face.head, fontSize: 13.5 }}>On foot</Box>
      <Select
        size="small"
        variant="standard"
        value={data?.bodies.some((b) => b.name === body) ? body : "standing"}
        onChange={(event) => void walk.setBody(event.target.value)}
        inputProps={{ "aria-label": "Who walks" }}
        sx={{ fontSize: 13 }}
      >
        {(data?.bodies ?? [{ name: "standing", radius_m: 0.25, height_m: 1.8 }]).map((b) => (
          <MenuItem key={b.name} value={b.name} sx={{ fontSize: 13 }}>
            {b.name}
          </MenuItem>
        ))}
      </Select>
      <Speed />
      <Button variant="outlined" onClick={() => walk.storey(1)} title="Page Up">
        Storey up
      </Button>
      <Button variant="outlined" onClick={() => walk.storey(-1)} title="Page Down">
        down
      </Button>
      <Button variant="text" onClick={() => take("jump")} title="J">
        jump
      </Button>
      <Button variant="text" onClick={() => take("through")} title="N">
        through
      </Button>
      <FormControlLabel
        sx={{ m: 0, "& .MuiFormControlLabel-label": { fontSize: 13 } }}
        control={
          <Checkbox
            size="small"
            sx={{ p: 0.25, mr: 0.25 }}
            checked={behind}
            onChange={(event) => walk.showBehind(event.target.checked)}
          />
        }
        label="behind"
      />
      <Button variant="text" onClick={walk.orbit} title="G">
        stop
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
      <FormControlLabel
        sx={{ m: 0, "& .MuiFormControlLabel-label": { fontSize: 13 } }}
        control={
          <Checkbox
            size="small"
            sx={{ p: 0.25, mr: 0.25 }}
            checked={stops}
            onChange={(event) => walk.setFlyStops(event.target.checked)}
          />
        }
        label="stop at surfaces"
      />
      <Button variant="text" onClick={walk.orbit} title="F">
        stop
      </Button>
    </>
  );
}
