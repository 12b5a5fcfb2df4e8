import Box from "@mui/material/Box";
import { useEffect } from "react";
import { usePointing } from "../open/pointing";
import { useOpen } from "../open/useStage";
import { tone } from "../style/theme";
import { CrossMouse, strokeOf, within } from "./cross";

const ARM_PX = 14;

/** The cross on the stage while somebody points with the keys. */
export function Cross() {
  const { at, held } = usePointing();
  useCrossKeys(at !== null);
  if (!at) return null;
  return (
    <Box
      component="svg"
      data-testid="cross"
      aria-hidden
      sx={{
        position: "absolute",
        left: at.x - ARM_PX,
        top: at.y - ARM_PX,
        width: 2 * ARM_PX,
        height: 2 * ARM_PX,
        pointerEvents: "none !important",
        overflow: "visible",
      }}
    >
      {/* Paper below ink: it stands out from whatever is behind it. */}
      {[
        [tone.paper, 4],
        [held === null ? tone.ink : tone.here, 1.5],
      ].map(([colour, width]) => (
        <path
          key={width}
          d={`M0 ${ARM_PX}h${ARM_PX - 4}m8 0h${ARM_PX - 4}M${ARM_PX} 0v${ARM_PX - 4}m0 8v${ARM_PX - 4}`}
          stroke={String(colour)}
          strokeWidth={width}
          fill="none"
        />
      ))}
    </Box>
  );
}

/**
 * While the cross is there, its keys are its own wherever nobody types or chooses. It listens from the beginning on, so
 * that it comes before the keys of who walks.
 */
function useCrossKeys(on: boolean): void {
  const { stage } = useOpen();
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const { at, held, put } = usePointing.getState();
      const [canvas, stroke] = [stage()?.canvas, strokeOf(event)];
      if (!at || !canvas || !stroke || isElsewhere(event.target)) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      const mouse = new CrossMouse(canvas);
      if (stroke.kind === "move") {
        const { clientWidth: width, clientHeight: height } = canvas;
        const to = within({ x: at.x + stroke.x, y: at.y + stroke.y }, { width, height });
        put({ at: to });
        mouse.move(to, held);
      } else if (stroke.kind === "hold") {
        if (held !== null) return release(mouse, false);
        mouse.down(at, { button: stroke.button, adds: false });
        put({ held: stroke.button });
      } else if (stroke.kind === "click") {
        release(mouse, false);
        mouse.click(at, stroke.adds, stroke.twice);
      } else if (stroke.kind === "wheel") mouse.wheel(at, stroke.notches);
      else if (held !== null) release(mouse, true);
      else put({ at: null });
    };
    window.addEventListener("keydown", key, true);
    return () => window.removeEventListener("keydown", key, true);
  }, [stage]);
  useEffect(() => {
    const canvas = stage()?.canvas;
    if (!on || !canvas) return;
    const mouse = new CrossMouse(canvas);
    mouse.move(usePointing.getState().at ?? { x: 0, y: 0 }, null);
    return () => {
      release(mouse, true);
      canvas.dispatchEvent(new PointerEvent("pointerleave"));
    };
  }, [on, stage]);
}

/** Let go of what the cross holds, done or broken off. */
function release(mouse: CrossMouse, broken: boolean): void {
  const { at, held, put } = usePointing.getState();
  if (held === null) return;
  if (broken || !at) mouse.drop(at ?? { x: 0, y: 0 });
  else mouse.up(at, { button: held, adds: false });
  put({ held: null });
}

/** Whether a key is for a field, a list or a dialog, or for a button that was come to. */
function isElsewhere(target: EventTarget | null): boolean {
  return (
    target instanceof Element &&
    target.closest("input, textarea, select, [role=dialog], [role=listbox], [role=menu], .MuiModal-root") !==
      null
  );
}
