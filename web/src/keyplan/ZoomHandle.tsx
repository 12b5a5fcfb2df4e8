import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import { useRef } from "react";
import { useOpen } from "../project/useStage";
import { face, tone } from "../theme";

/** Zooms by dragging, pixel by pixel, where a wheel goes in steps. */
export function ZoomHandle() {
  const { stage } = useOpen();
  const last = useRef<number | null>(null);
  return (
    <Tooltip title="Drag up to come nearer, down to go back">
      <Box
        role="slider"
        tabIndex={0}
        aria-label="Zoom handle"
        aria-valuenow={0}
        data-testid="zoom-handle"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          last.current = event.clientY;
        }}
        onPointerMove={(event) => {
          if (last.current === null) return;
          stage()?.navigation.zoomByHandle(last.current - event.clientY);
          last.current = event.clientY;
        }}
        onPointerUp={() => {
          last.current = null;
        }}
        sx={{
          width: 24,
          height: 58,
          border: `1px solid ${tone.line}`,
          bgcolor: tone.paper,
          borderRadius: "12px",
          display: "grid",
          placeItems: "center",
          cursor: "ns-resize",
          touchAction: "none",
          fontFamily: face.head,
          fontWeight: 600,
          fontSize: 15,
          lineHeight: 1,
          color: tone.soft,
          userSelect: "none",
        }}
      >
        <span>+</span>
        <span>−</span>
      </Box>
    </Tooltip>
  );
}
