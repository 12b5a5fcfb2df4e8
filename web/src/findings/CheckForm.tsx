import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Shapes } from "../api/client";
import { useDraft } from "../open/drafts";
import { useSets } from "../open/selections/useSets";
import { useSession } from "../open/session";
import { useTaskActs } from "../open/tasks/useTasks";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { useValues } from "../open/useValues";
import { DeskHeading } from "../parts/desk";
import { PickOne } from "../parts/PickOne";
import { Tick } from "../parts/Tick";
import { useLooked } from "./finding";
import { choicesOf, groupOf, VISIBLE } from "./groups";
import { Limits, usualLimits } from "./Limits";

const NO_SIDES = ["", ""] as const;
const USUAL = usualLimits();

/** Asks for a check of one group against another. */
export function CheckForm() {
  const { federation } = useOpen();
  const { ask } = useTaskActs();
  const { data: sets } = useSets();
  const units = useUnits();
  const say = useSession((s) => s.say);
  const [sides, setSides] = useDraft<readonly [string, string]>("sides of a check", NO_SIDES);
  const [limits, setLimits] = useDraft("limits of a check", USUAL);
  const [swings, setSwings] = useDraft("swings of a check", false);
  const [busy, setBusy] = useState(false);
  const submit = async () => {
    const [a, b] = sides.map((key) => groupOf(federation, key || VISIBLE, sets ?? []));
    if (!a || !b) return say("The group is empty. Select components or choose another group.");
    const typed = limits.read(units);
    if (!typed) return say(limits.wrong(units));
    setBusy(true);
    const wish: Shapes["Check"] = { kind: "check", a, b, ...typed, together_m: 1, swings };
    const id = await ask(`${a.called} and ${b.called}`.slice(0, 120), wish);
    setBusy(false);
    if (id) useLooked.setState({ opened: id, at: null });
  };
  return (
    <Box
      component="form"
      data-testid="check-form"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault();
        void submit();
      }}
    >
      <DeskHeading>New interference check</DeskHeading>
      <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr)", gap: 0.75, mb: 1 }}>
        {(["Of", "and"] as const).map((word, k) => (
          <Box key={word} sx={{ display: "flex", alignItems: "center", gap: 1, fontSize: 13 }}>
            <Box sx={{ width: 24 }}>{word}</Box>
            <Side
              label={k ? "The other group" : "One group"}
              value={sides[k] ?? ""}
              set={(key) => setSides(k ? [sides[0], key] : [key, sides[1]])}
            />
          </Box>
        ))}
        <Limits limits={limits} set={setLimits} />
        <Tick label="include door swings" on={swings} set={setSwings} />
      </Box>
      <Button type="submit" variant="contained" disabled={busy || !sides[0] || !sides[1]}>
        Run the check
      </Button>
    </Box>
  );
}

function Side({ label, value, set }: { label: string; value: string; set: (key: string) => void }) {
  const { federation } = useOpen();
  const { data: systems } = useValues("system");
  const { data: sets } = useSets();
  return (
    <PickOne
      label={label}
      value={value}
      {...(value ? {} : { none: "Choose…" })}
      offered={choicesOf(federation, systems ?? [], sets ?? [])}
      choose={set}
    />
  );
}
