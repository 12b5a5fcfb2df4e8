import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { useState } from "react";
import type { Component } from "../api/client";
import { useCameraCommands } from "../open/looking/useCameraCommands";
import { useSelection } from "../open/selection";
import { SHOWN } from "../open/visibility/expected";
import type { Selector } from "../open/visibility/selectors";
import { useSeeing } from "../open/visibility/useSeeing";
import { useViewState } from "../open/visibility/viewState";
import { DeskActs } from "../parts/desk";
import { tone } from "../style/theme";
import { useCopyText, usePickRun } from "./useComponentActs";

/** All that is like a component, as a rule says it; nothing for itself. */
function like(component: Component): { name: string; select: Selector | null }[] {
  const { type_name, systems, level } = component;
  const extents: { name: string; select: Selector | null }[] = [{ name: "the selection", select: null }];
  if (type_name)
    extents.push({
      name: `all of type ${type_name}`,
      select: { kind: "of", what: "type", value: type_name },
    });
  for (const system of systems)
    extents.push({ name: `all of system ${system}`, select: { kind: "of", what: "system", value: system } });
  extents.push({
    name: level === null ? "all on no level" : `all on ${level}`,
    select: { kind: "of", what: "level", value: level ?? "" },
  });
  return extents;
}

/** Fit, hide, only this, fade the rest, bring back: for what is picked, or for all that is like it. */
export function Acts({ component }: { component: Component }) {
  const { fitPicked } = useCameraCommands();
  const { hide, only, fadeRest, bringBack } = useSeeing();
  const pickRun = usePickRun();
  const copyText = useCopyText();
  const [chosen, choose] = useState(0);
  const extents = like(component);
  const select = extents[chosen]?.select ?? undefined;
  return (
    <Box sx={{ mb: 1.5 }}>
      <NativeSelect
        value={chosen}
        onChange={(event) => choose(Number(event.target.value))}
        inputProps={{ "aria-label": "For the selection, or for all like it" }}
        sx={{ fontSize: 13, mb: 0.75, maxWidth: "100%" }}
      >
        {extents.map((extent, i) => (
          <option key={extent.name} value={i}>
            {extent.name}
          </option>
        ))}
      </NativeSelect>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
        <Button variant="contained" onClick={() => void fitPicked()}>
          Fit
        </Button>
        <Button variant="outlined" onClick={() => hide(select)}>
          Hide
        </Button>
        <Button variant="outlined" onClick={() => only(select)}>
          Isolate
        </Button>
        <Button variant="outlined" onClick={() => fadeRest(select)}>
          Fade others
        </Button>
        <Button variant="outlined" onClick={() => bringBack(select)}>
          Show again
        </Button>
      </Box>
      <DeskActs>
        <Button variant="text" onClick={() => void pickRun(component)}>
          Select connected run
        </Button>
        <Button variant="text" onClick={() => void copyText(component)}>
          Copy as text
        </Button>
      </DeskActs>
    </Box>
  );
}

/** Where what is picked is not plainly shown: by which rule, and the way back. */
export function WhyHidden() {
  const last = useSelection((s) => s.picked.at(-1) ?? -1);
  const state = useViewState((s) => s.states[last] ?? SHOWN);
  const reason = useViewState((s) => s.reasons[last] ?? -1);
  const line = useViewState((s) => s.lines[reason]);
  const { bringBack } = useSeeing();
  if (state === SHOWN) return null;
  return (
    <Box
      data-testid="why-hidden"
      sx={{ borderLeft: `3px solid ${tone.here}`, bgcolor: tone.film, px: 1, py: 0.75, mb: 1, fontSize: 13 }}
    >
      {reason === -2
        ? "This alternative is not in use. Choose it on the Models desk."
        : `This component is not fully shown. ${line ? line.says : ""}${line?.rule.by ? ` (by ${line.rule.by})` : ""}`}
      {reason !== -2 && (
        <Box>
          <Button variant="text" onClick={() => bringBack()}>
            Show it
          </Button>
        </Box>
      )}
    </Box>
  );
}
