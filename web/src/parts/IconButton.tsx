import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import { tone } from "../style/theme";

/** Small tools where there is no room for words, drawn with the pen of the rest; on a ground of 16 by 16. */
const DRAWN = {
  larger: "M9.5 6.5 14 2M10 2h4v4M6.5 9.5 2 14M2 10v4h4",
  smaller: "M14 2 9.5 6.5M9.5 2.5v4h4M2 14l4.5-4.5M2.5 9.5h4v4",
  fainter: "M8 2a6 6 0 1 0 0 12M8 2v12M8 5h4M8 8h5.5M8 11h4",
  clearer: "M8 2a6 6 0 1 0 0 12A6 6 0 0 0 8 2M8 2v12",
} as const;

/** A drawn button with a name, said when one rests on it. */
export function IconButton(props: { icon: keyof typeof DRAWN; off?: boolean; onClick: () => void }) {
  const { icon, off = false } = props;
  return (
    <Tooltip title={`Key plan ${icon}`}>
      <Box
        component="button"
        type="button"
        aria-label={icon}
        disabled={off}
        onClick={props.onClick}
        sx={{
          width: 26,
          height: 26,
          p: 0,
          border: `1px solid ${off ? "transparent" : tone.line}`,
          bgcolor: "transparent",
          color: off ? tone.line : tone.ink,
          cursor: off ? "default" : "pointer",
          display: "grid",
          placeItems: "center",
          "&:hover": { bgcolor: off ? "transparent" : tone.film },
          "@media (pointer: coarse)": { width: 32, height: 32 },
        }}
      >
        <svg width="16" height="16" fill="none" stroke="currentColor" strokeWidth="1.4" aria-hidden="true">
          <path d={DRAWN[icon]} />
        </svg>
      </Box>
    </Tooltip>
  );
}
