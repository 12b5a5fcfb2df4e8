import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import { useRef } from "react";
import { useOpen } from "../open/useStage";
import { FINGER, face, tone } from "../style/theme";

/** So many pixels of dragging are one press of a button or a key. */
const STEP_PX = 36;

/** Zooms by buttons and by dragging between them, pixel by pixel, where a wheel goes in steps. */
export function ZoomHandle() {
  const { stage } = useOpen();
  const last = useRef<number | null>(null);
  const zoom = (px: number) => stage()?.navigation.zoomByHandle(px);
  return (
    <Box sx={{ border: `1px solid ${tone.line}`, bgcolor: tone.paper, width: 28, [FINGER]: { width: 36 } }}>
      <Press name="Closer" sign="+" onClick={() => zoom(STEP_PX)} />
      <Tooltip title="Drag up to zoom in, down to zoom out">
        <Box
          role="slider"
          tabIndex={0}
          aria-label="Zoom handle"
          aria-orientation="vertical"
          aria-valuenow={0}
          aria-valuetext="up zooms in"
          data-testid="zoom-handle"
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            last.current = event.clientY;
          }}
          onPointerMove={(event) => {
            if (last.current === null) return;
            zoom(last.current - event.clientY);
            last.current = event.clientY;
          }}
          onPointerUp={() => {
            last.current = null;
          }}
          onKeyDown={(event) => {
            if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
            event.preventDefault();
            event.stopPropagation();
            zoom(event.key === "ArrowUp" ? STEP_PX : -STEP_PX);
          }}
          sx={{
            height: 34,
            display: "grid",
            placeItems: "center",
            cursor: "ns-resize",
            touchAction: "none",
            userSelect: "none",
            borderBlock: `1px solid ${tone.line}`,
            "&::before": {
              content: '""',
              width: 14,
              height: 10,
              borderBlock: `1.5px solid ${tone.soft}`,
            },
          }}
        />
      </Tooltip>
      <Press name="Further" sign="−" onClick={() => zoom(-STEP_PX)} />
    </Box>
  );
}

function Press(props: { name: string; sign: string; onClick: () => void }) {
  return (
    <Tooltip title={props.name}>
      <Box
        component="button"
        type="button"
        aria-label={props.name}
        onClick={props.onClick}
        sx={{
          display: "block",
          width: "100%",
          height: 26,
          p: 0,
          border: 0,
          bgcolor: "transparent",
          color: tone.ink,
          fontFamily: face.head,
          fontWeight: 600,
          fontSize: 16,
          lineHeight: 1,
          cursor: "pointer",
          "&:hover": { bgcolor: tone.film },
          [FINGER]: { height: 34 },
        }}
      >
        {props.sign}
      </Box>
    </Tooltip>
  );
}
