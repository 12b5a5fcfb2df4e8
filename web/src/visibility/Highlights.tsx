import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import type { Shapes } from "../api/client";
import { highlightsQuery } from "../api/queries";
import { BACKGROUNDS, useHabits } from "../open/habits";
import { useOpen } from "../open/useStage";
import { PanelHeading } from "../parts/Panel";
import { useSettled } from "../parts/useSettled";
import { tone } from "../style/theme";

/** So many are offered; what somebody chose is checked with them. */
const OFFERED = 6;

/** The colours of what is picked and of what is under the cursor, each checked against the building and its background. */
export function Highlights() {
  const { projectId } = useOpen();
  const { background, pickColour, hoverColour, set } = useHabits();
  const own = useSettled(`${pickColour},${hoverColour}`, 250);
  const { data = [] } = useQuery(highlightsQuery(projectId, BACKGROUNDS[background], own.split(",")));
  const offered = data.slice(0, OFFERED);
  const found = (colour: string) => data.find((each) => each.colour === colour);
  return (
    <>
      <One
        name="Selection"
        colour={pickColour}
        found={found(pickColour)}
        set={(pick) => set({ pickColour: pick })}
      >
        {offered}
      </One>
      <One
        name="Under the cursor"
        colour={hoverColour}
        found={found(hoverColour)}
        set={(hover) => set({ hoverColour: hover })}
      >
        {offered}
      </One>
    </>
  );
}

function One(props: {
  name: string;
  colour: string;
  found: Shapes["Highlight"] | undefined;
  set: (colour: string) => void;
  children: readonly Shapes["Highlight"][];
}) {
  return (
    <>
      <PanelHeading>{props.name}</PanelHeading>
      <Box sx={{ display: "flex", gap: 0.5, alignItems: "center" }}>
        {props.children.map(({ colour, says, stands_out }) => (
          <Box
            key={colour}
            component="button"
            type="button"
            aria-label={`${props.name} in ${colour}`}
            aria-pressed={colour === props.colour}
            title={says}
            onClick={() => props.set(colour)}
            sx={{
              width: 26,
              height: 22,
              p: 0,
              cursor: "pointer",
              bgcolor: colour,
              color: tone.paper,
              fontSize: 12,
              border: `1px solid ${tone.soft}`,
              outline: colour === props.colour ? `2px solid ${tone.ink}` : "none",
              outlineOffset: 1,
            }}
          >
            {stands_out ? "" : "~"}
          </Box>
        ))}
        <input
          type="color"
          value={props.colour}
          aria-label={`${props.name} in any colour`}
          title="Any colour"
          onChange={(event) => props.set(event.target.value)}
          style={{ width: 34, height: 24, padding: 0, border: `1px solid ${tone.soft}`, background: "none" }}
        />
      </Box>
      <Box sx={{ fontSize: 12, color: tone.soft, mt: 0.25, minHeight: 16 }}>
        {props.found?.says}
        {props.found && !props.found.stands_out && (
          <Box
            component="span"
            data-testid="nearest-colour"
            sx={{ display: "inline-block", width: 18, height: 11, ml: 0.5, bgcolor: props.found.nearest }}
          />
        )}
      </Box>
    </>
  );
}
