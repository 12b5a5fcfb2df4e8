import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import { useRef } from "react";
import { enlarged } from "../style/lettering";
import { tone } from "../style/theme";

/** Drag it to make the key plan larger or smaller. */
export function SizeHandle(props: { size: number; onSize: (px: number) => void }) {
  const held = useRef<{ x: number; y: number; size: number } | null>(null);
  return (
    <Tooltip title="Drag to make the key plan larger or smaller">
      <Box
        component="svg"
        viewBox="0 0 16 16"
        role="presentation"
        data-testid="size-handle"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = { x: event.clientX, y: event.clientY, size: props.size };
        }}
        onPointerMove={(event) => {
          const from = held.current;
          const more = from ? Math.max(event.clientX - from.x, from.y - event.clientY) : 0;
          if (from) props.onSize(from.size + more / enlarged(event.currentTarget));
        }}
        onPointerUp={() => {
          held.current = null;
        }}
        sx={{
          position: "absolute",
          right: 4,
          top: 4,
          width: 16,
          height: 16,
          cursor: "nesw-resize",
          touchAction: "none",
        }}
      >
        <rect width="16" height="16" fill="transparent" />
        <path d="M6 2H14V10M10 2L14 6M6 2L14 10" fill="none" stroke={tone.soft} strokeWidth="1.3" />
      </Box>
    </Tooltip>
  );
}
