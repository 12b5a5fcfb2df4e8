import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import NativeSelect from "@mui/material/NativeSelect";
import Switch from "@mui/material/Switch";
import { useHabits } from "../open/habits";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useDirections, useKeyPlan, useTurns } from "../open/plan/useInstrument";
import { useSession } from "../open/session";
import { useOpen } from "../open/useStage";
import { PanelHeading, Row } from "../parts/Panel";

const FRONTS = [
  { deg: 0, name: "south" },
  { deg: 270, name: "east" },
  { deg: 180, name: "north" },
  { deg: 90, name: "west" },
] as const;

/** Standard directions and square-on views, and how turning is done. */
export function LookPanel() {
  const { federation, stage } = useOpen();
  const look = useCameraCommands();
  const habits = useHabits();
  const directions = useDirections();
  const plan = useKeyPlan(0);
  const turns = useTurns(plan);
  const say = useSession((s) => s.say);
  const sides = directions.filter((d) => d.tilt_deg === 0 && !d.name.includes(" "));
  const onFace = () => {
    const normal = stage()?.pickedNormal;
    if (normal) void look.squareToFace(normal);
    else say("Click a face first, then the view can turn square onto it.");
  };
  return (
    <Box sx={{ p: 1.5, width: 320 }} data-testid="look-panel">
      <PanelHeading>Square onto</PanelHeading>
      <Row>
        <Button variant="outlined" onClick={() => turns.toTilt(90)}>
          Plan
        </Button>
        {sides.map((side) => (
          <Button key={side.name} variant="outlined" onClick={() => void turns.toDirection(side)}>
            {side.name[0]?.toUpperCase()}
            {side.name.slice(1)}
          </Button>
        ))}
        <Button variant="outlined" onClick={onFace}>
          Selected face
        </Button>
      </Row>
      {plan && plan.axes.length > 0 && (
        <NativeSelect
          value=""
          onChange={(event) => {
            const axis = plan.axes.find((a) => a.tag === event.target.value);
            if (axis) void look.squareToAxis(axis.tag, axis.ends);
          }}
          inputProps={{ "aria-label": "Square onto a grid line" }}
          sx={{ fontSize: 13, mb: 0.75 }}
        >
          <option value="">Grid line…</option>
          {plan.axes.map((axis) => (
            <option key={axis.tag}>{axis.tag}</option>
          ))}
        </NativeSelect>
      )}
      <PanelHeading>Turning</PanelHeading>
      <Choice
        name="Fit the selection, else all visible components"
        on={habits.fitOnTurn}
        set={(fitOnTurn) => habits.set({ fitOnTurn })}
      />
      <Choice
        name="Tumble freely, over the top as well"
        on={habits.tumble}
        set={(tumble) => {
          habits.set({ tumble });
          if (!tumble) stage()?.navigation.upright();
        }}
      />
      <Choice
        name="Stay inside rooms when zooming out"
        on={habits.keepInside}
        set={(keepInside) => habits.set({ keepInside })}
      />
      <Choice name="Jump without gliding" on={habits.instant} set={(instant) => habits.set({ instant })} />
      {federation.true_north_deg !== null && (
        <Choice
          name="Bearings from true north"
          on={habits.trueNorth}
          set={(trueNorth) => habits.set({ trueNorth })}
        />
      )}
      <Choice
        name="Reopen projects with components hidden as I left them"
        on={habits.reopen === "keep"}
        set={(keep) => habits.set({ reopen: keep ? "keep" : "reset" })}
      />
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, fontSize: 13, mt: 0.5 }}>
        The front is the building's
        <NativeSelect
          value={habits.frontDeg}
          onChange={(event) => habits.set({ frontDeg: Number(event.target.value) })}
          inputProps={{ "aria-label": "Front side" }}
          sx={{ fontSize: 13 }}
        >
          {FRONTS.map((front) => (
            <option key={front.deg} value={front.deg}>
              {front.name}
            </option>
          ))}
        </NativeSelect>
      </Box>
    </Box>
  );
}

function Choice(props: { name: string; on: boolean; set: (on: boolean) => void }) {
  return (
    <FormControlLabel
      control={
        <Switch
          size="small"
          color="secondary"
          checked={props.on}
          onChange={(event) => props.set(event.target.checked)}
        />
      }
      label={props.name}
      slotProps={{ typography: { sx: { fontSize: 13 } } }}
      sx={{ display: "flex", ml: -0.5 }}
    />
  );
}
