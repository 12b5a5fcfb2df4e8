import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import type { Shapes } from "../api/client";
import { counted } from "../parts/words";
import type { State } from "../stage/states";
import { face, tone } from "../theme";
import { stateOf, type Tally } from "./board";

export const NEXT: Record<State, State> = { shown: "faded", faded: "hidden", hidden: "shown" };
export const EFFECT = { shown: "show", faded: "fade", hidden: "hide" } as const satisfies Record<
  State,
  string
>;

/** One discipline on one level: solid foot shown, hatched and dotted faded, dashed and "off" hidden. */
export function Cell(props: {
  level: string;
  discipline: Shapes["Discipline"] | undefined;
  tally: Tally | undefined;
  onClick: () => void;
}) {
  const { level, discipline, tally } = props;
  if (!discipline || !tally) return <span />;
  const { there } = tally;
  const state = stateOf(tally);
  const part = state === "shown" && tally.shown < there;
  const c = discipline.colour;
  const look = {
    shown: { bgcolor: `${c}38`, borderBottom: `4px solid ${c}`, border: 0 },
    faded: {
      backgroundImage: `repeating-linear-gradient(135deg, ${c}40 0 2px, transparent 2px 6px)`,
      borderBottom: `4px dotted ${c}`,
    },
    hidden: { bgcolor: "#fff", border: `1px dashed ${tone.soft}` },
  }[state];
  return (
    <Tooltip
      title={`${discipline.name} on ${level}: ${part ? `${tally.shown} of ${there} components shown` : `${counted(there, "component")}, ${state}`}`}
      placement="right"
    >
      <Box
        component="button"
        type="button"
        aria-label={`${discipline.code} ${level}`}
        data-state={state}
        data-part={part || undefined}
        onClick={props.onClick}
        sx={{
          border: 0,
          p: 0,
          pt: "2px",
          cursor: "pointer",
          display: "flex",
          flexDirection: "column",
          alignItems: "center",
          fontFamily: face.head,
          fontSize: 12,
          fontWeight: 600,
          color: state === "hidden" ? tone.soft : tone.ink,
          minWidth: 0,
          overflow: "hidden",
          bgcolor: "transparent",
          ...look,
          ...(state === "shown" ? { borderBottom: `4px solid ${c}` } : {}),
          "&:hover": { boxShadow: `inset 0 0 0 1.5px ${tone.ink}` },
        }}
      >
        {state === "hidden" ? "off" : part ? tally.shown : there}
        {part && (
          <Box component="span" sx={{ fontSize: 10.5, lineHeight: 1, whiteSpace: "nowrap" }}>
            /{there}
          </Box>
        )}
      </Box>
    </Tooltip>
  );
}
