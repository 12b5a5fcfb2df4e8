import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { type FormEvent, useState } from "react";
import { answerOf, api, type Shapes } from "../api/client";
import { useWalking, useWalkRule } from "../api/queries";
import { useSession, withErrorNotice } from "../open/session";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Tick } from "../parts/Tick";

type Rule = Shapes["WalkRule"];
type Body = Shapes["WalkingBody"];

/** How far the walk map is that is being made; what there was is used until then. */
function MapState({ walking }: { walking: Shapes["Walking"] }) {
  if (walking.current) return null;
  if (walking.trouble) return <DeskNote>{walking.trouble}</DeskNote>;
  const share = walking.making ? `, ${Math.round(100 * walking.making)} %` : "";
  const previous = walking.tiles.length ? " The previous map is used until then." : "";
  return (
    <DeskNote>
      The walk map is being made{share}.{previous}
    </DeskNote>
  );
}

const spoken = (ifcClass: string) => ifcClass.replace(/^Ifc/, "");

/** What stands in the way of walking, and bodies of the project's own; for everybody. */
export function WalkRule() {
  const { projectId } = useOpen();
  const { data: walking } = useWalking(projectId, "standing");
  const { data } = useWalkRule(projectId);
  const units = useUnits();
  const say = useSession((s) => s.say);
  const [open, setOpen] = useState(false);
  if (!data || !walking) return null;
  const own = data.bodies;
  const change = (wish: Partial<Rule>) =>
    withErrorNotice(async () => {
      const { passable, doors_locked, cell_cm } = data;
      const body: Rule = { passable, doors_locked, cell_cm, bodies: own, ...wish };
      await answerOf(
        api.PUT("/api/projects/{project_id}/walking/rule", {
          params: { path: { project_id: projectId } },
          body,
        }),
      );
      say("The walk map is being made again. Routes use it when it is ready.");
    });
  return (
    <Box data-testid="walk-rule">
      <DeskHeading>Bodies and obstacles</DeskHeading>
      <MapState walking={walking} />
      <Button variant="text" onClick={() => setOpen(!open)} aria-expanded={open}>
        {open ? "Less" : "Change"}
      </Button>
      {open && (
        <>
          <Box>
            <Tick
              label="doors are locked"
              on={data.doors_locked}
              set={(on) => void change({ doors_locked: on })}
            />
          </Box>
          <Box>
            <Tick
              label="cells of 5 cm instead of 10: a finer map that takes longer"
              on={data.cell_cm === 5}
              set={(fine) => void change({ cell_cm: fine ? 5 : 10 })}
            />
          </Box>
          <Autocomplete
            multiple
            size="small"
            sx={{ my: 1 }}
            options={[...new Set([...data.classes, ...data.passable])].sort()}
            value={data.passable}
            getOptionLabel={spoken}
            onChange={(_, passable) => void change({ passable })}
            renderInput={(params) => <TextField {...params} label="Passable classes" />}
          />
          {own.map((body) => (
            <Box key={body.name} sx={{ display: "flex", justifyContent: "space-between" }}>
              {body.name}: {units.length(2 * body.radius_m, 2)} × {units.length(body.height_m, 2)}
              <Button
                variant="text"
                onClick={() => void change({ bodies: own.filter((b) => b.name !== body.name) })}
              >
                Remove
              </Button>
            </Box>
          ))}
          <NewBody onMade={(body) => void change({ bodies: [...own, body] })} />
        </>
      )}
    </Box>
  );
}

const SIZES = [
  ["width", "Wide", 0.6],
  ["height", "High", 1.8],
  ["step", "Step", 0.25],
] as const;

function NewBody({ onMade }: { onMade: (body: Body) => void }) {
  const units = useUnits();
  const say = useSession((s) => s.say);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const typed = new FormData(event.currentTarget);
    const wrong = units.wrong(SIZES.map(([key]) => String(typed.get(key))));
    if (wrong) return say(wrong);
    const figure = (key: string) => units.parse(String(typed.get(key))) ?? 0;
    onMade({
      name: String(typed.get("name")).trim(),
      radius_m: figure("width") / 2,
      height_m: figure("height"),
      step_up_m: figure("step"),
      step_down_m: figure("step"),
      slope: 1 / Number.parseFloat(String(typed.get("slope"))),
      speed_m_s: 1.2,
      own: true,
    });
  };
  return (
    <Box
      component="form"
      onSubmit={submit}
      sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1, mt: 1 }}
    >
      <TextField size="small" required name="name" label="Another body" sx={{ gridColumn: "1 / -1" }} />
      {SIZES.map(([name, label, value]) => (
        <TextField
          key={name}
          size="small"
          required
          name={name}
          label={`${label}, ${units.sign}`}
          defaultValue={units.typed(value)}
        />
      ))}
      <TextField
        size="small"
        required
        name="slope"
        label="Slope 1:"
        defaultValue="12"
        slotProps={{ htmlInput: { inputMode: "decimal", pattern: "[0-9.]+" } }}
      />
      <Button type="submit" variant="outlined" sx={{ gridColumn: "1 / -1" }}>
        Add this body
      </Button>
    </Box>
  );
}
