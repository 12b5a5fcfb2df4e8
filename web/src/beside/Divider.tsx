import Box from "@mui/material/Box";
import { useRef } from "react";
import { useHabits } from "../open/habits";
import { tone } from "../theme";

const LEAST = 0.2;
const MOST = 0.75;
const STEP = 0.05;

function within(share: number): number {
  return Math.max(LEAST, Math.min(MOST, share));
}

/** Drag it to give more room to the stage or to the drawing. */
export function Divider() {
  const share = useHabits((s) => s.besideShare);
  const set = useHabits((s) => s.set);
  const dragging = useRef(false);
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label="Room for the drawing"
      aria-valuenow={Math.round(share * 100)}
      aria-valuemin={LEAST * 100}
      aria-valuemax={MOST * 100}
      data-testid="divider"
      onKeyDown={(event) => {
        const by = event.key === "ArrowLeft" ? STEP : event.key === "ArrowRight" ? -STEP : 0;
        if (!by) return;
        event.stopPropagation();
        set({ besideShare: within(share + by) });
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        dragging.current = true;
      }}
      onPointerMove={(event) => {
        const pane = event.currentTarget.parentElement;
        const whole = pane?.parentElement?.getBoundingClientRect();
        if (!dragging.current || !whole) return;
        set({ besideShare: within((whole.right - event.clientX) / whole.width) });
      }}
      onPointerUp={() => {
        dragging.current = false;
      }}
      sx={{
        position: "absolute",
        left: -5,
        top: 0,
        bottom: 0,
        width: 9,
        zIndex: 2,
        cursor: "ew-resize",
        touchAction: "none",
        "&:hover, &:focus-visible": { bgcolor: tone.here, opacity: 0.35 },
      }}
    />
  );
}
