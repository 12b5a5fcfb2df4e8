import Box from "@mui/material/Box";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { dragged, placed, type Side, WIDEST } from "../open/views/frame";
import type { Framed } from "../stage/pictures";
import { tone } from "../style/theme";

const STEP = 0.02;
const EDGES: readonly Side[] = ["left", "right", "bottom", "top"];

/** The frame over the picture: moved as a whole, and by each of its sides. */
export function FrameOver({ frame, put }: { frame: Framed; put: (frame: Framed) => void }) {
  const over = useRef<HTMLDivElement>(null);
  const drag = (side: Side | "all") => (down: PointerEvent<HTMLElement>) => {
    const size = over.current?.parentElement?.getBoundingClientRect();
    if (!size) return;
    down.preventDefault();
    down.stopPropagation();
    const element = down.currentTarget;
    element.setPointerCapture(down.pointerId);
    const move = (event: globalThis.PointerEvent) => {
      const x = ((event.clientX - down.clientX) / size.width) * 2 * WIDEST;
      const y = ((down.clientY - event.clientY) / size.height) * 2 * WIDEST;
      put(dragged(frame, side, { x, y }));
    };
    element.addEventListener("pointermove", move);
    element.addEventListener("lostpointercapture", () => element.removeEventListener("pointermove", move), {
      once: true,
    });
  };
  const key = (side: Side) => (event: KeyboardEvent) => {
    const x = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key] ?? 0;
    const y = { ArrowDown: -STEP, ArrowUp: STEP }[event.key] ?? 0;
    if (!x && !y) return;
    event.preventDefault();
    put(dragged(frame, side, { x, y }));
  };
  const thick = 14;
  const at: Record<Side, object> = {
    left: { left: -thick / 2, top: 0, bottom: 0, width: thick, cursor: "ew-resize" },
    right: { right: -thick / 2, top: 0, bottom: 0, width: thick, cursor: "ew-resize" },
    bottom: { bottom: -thick / 2, left: 0, right: 0, height: thick, cursor: "ns-resize" },
    top: { top: -thick / 2, left: 0, right: 0, height: thick, cursor: "ns-resize" },
  };
  return (
    <Box
      ref={over}
      data-testid="picture-frame"
      onPointerDown={drag("all")}
      sx={{
        position: "absolute",
        ...placed(frame),
        border: `2px solid ${tone.pick}`,
        boxShadow: "0 0 0 2000px rgba(30,43,54,.45)",
        cursor: "move",
        touchAction: "none",
      }}
    >
      {EDGES.map((side) => (
        <Box
          key={side}
          component="button"
          type="button"
          aria-label={`The picture's ${side} side`}
          onPointerDown={drag(side)}
          onKeyDown={key(side)}
          sx={{
            position: "absolute",
            border: 0,
            p: 0,
            bgcolor: "transparent",
            touchAction: "none",
            ...at[side],
          }}
        />
      ))}
    </Box>
  );
}
