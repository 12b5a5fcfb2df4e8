import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import type { Tally } from "../open/visibility/tallies";
import { Unseen } from "../parts/Unseen";
import { counted } from "../parts/words";
import { face, tone } from "../style/theme";
import { partsOf, stateOf } from "./board";
import type { Column } from "./columns";

/** A part of a cell, whose height says how much of it is so: ruled across hidden, hatched faded, solid shown. */
function parts(tally: Tally, colour: string) {
  const { hidden, faded, shown } = partsOf(tally);
  return [
    {
      share: hidden,
      state: "hidden",
      sx: {
        bgcolor: "#fff",
        backgroundImage: `linear-gradient(to top right, transparent calc(50% - 1px), ${tone.ink} calc(50% - 0.6px), ${tone.ink} calc(50% + 0.6px), transparent calc(50% + 1px))`,
        border: `1px solid ${tone.soft}`,
      },
    },
    {
      share: faded,
      state: "faded",
      sx: {
        backgroundImage: `repeating-linear-gradient(135deg, ${colour}55 0 2px, transparent 2px 6px)`,
        borderBottom: `4px dotted ${colour}`,
      },
    },
    { share: shown, state: "shown", sx: { bgcolor: `${colour}40`, borderBottom: `4px solid ${colour}` } },
  ].filter(({ share }) => share > 0);
}

/** How much of its height a part takes at least, so that a single component that is hidden shows. */
const LEAST_PX = 9;

/** One discipline, or system, on one level: how much of it is shown, faded and hidden, and how many that is. */
export function Cell(props: {
  level: string;
  column: Column;
  tally: Tally | undefined;
  place: string;
  reached: boolean;
  /** It says how many components it holds. */
  counted: boolean;
  onClick: () => void;
}) {
  const { level, column, tally } = props;
  if (!tally) return <span />;
  const { there, shown } = tally;
  const state = stateOf(tally);
  const part = state === "shown" && shown < there;
  const off = tally.hidden === there;
  return (
    <Tooltip
      title={`${column.name} on ${level}: ${part ? `${shown} of ${there} components shown` : `${counted(there, "component")}, ${state}`}`}
      placement="right"
    >
      <Box
        component="button"
        type="button"
        data-state={state}
        data-part={part || undefined}
        data-place={props.place}
        tabIndex={props.reached ? 0 : -1}
        onClick={props.onClick}
        sx={{
          border: 0,
          p: 0,
          cursor: "pointer",
          position: "relative",
          display: "flex",
          flexDirection: "column",
          fontFamily: face.head,
          fontSize: 12,
          fontWeight: 600,
          color: tone.ink,
          minWidth: 0,
          overflow: "hidden",
          bgcolor: "transparent",
          "&:hover": { boxShadow: `inset 0 0 0 1.5px ${tone.ink}` },
        }}
      >
        <Unseen>{`${column.code} ${level}`}</Unseen>
        {parts(tally, column.colour).map(({ share, state: each, sx }) => (
          <Box
            key={each}
            data-testid={`part-${each}`}
            sx={{ flex: `${share} 1 0`, minHeight: LEAST_PX, width: "100%", boxSizing: "border-box", ...sx }}
          />
        ))}
        {props.counted && (
          <Box
            component="span"
            aria-hidden
            data-testid="count"
            sx={{
              position: "absolute",
              top: 2,
              left: 0,
              right: 0,
              textAlign: "center",
              lineHeight: 1.05,
              ...((off || tally.hidden > 0) && {
                mx: "auto",
                width: "fit-content",
                px: "2px",
                bgcolor: "#fff",
              }),
            }}
          >
            {off ? "off" : part ? shown : there}
            {part && (
              <Box component="span" sx={{ display: "block", fontSize: 10.5, whiteSpace: "nowrap" }}>
                /{there}
              </Box>
            )}
          </Box>
        )}
      </Box>
    </Tooltip>
  );
}
