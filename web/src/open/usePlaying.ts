import { useCallback, useEffect, useRef } from "react";
import { isSame, type Pose } from "../stage/pose";
import { useOpen } from "./useStage";

/**
 * Plays something that moves the eye: calls `on` for each frame with the seconds since the last one, until it says that
 * it is over. Moving the view by hand pauses it; what is returned says that where
 * the eye is now is part of what is played.
 */
export function usePlaying(
  playing: boolean,
  on: (seconds: number) => boolean,
  pause: () => void,
): () => void {
  const { stage } = useOpen();
  const left = useRef<Pose | null>(null);
  const latest = useRef({ on, pause });
  latest.current = { on, pause };
  useEffect(() => {
    const view = stage();
    if (!playing || !view) return;
    const stop = () => latest.current.pause();
    view.canvas.addEventListener("pointerdown", stop);
    view.canvas.addEventListener("wheel", stop, { passive: true });
    let asked = 0;
    let last = performance.now();
    left.current = null;
    const step = (now: number) => {
      const moved = left.current !== null && (view.navigation.busy || !isSame(view.pose, left.current));
      if (moved || !latest.current.on((now - last) / 1000)) {
        stop();
        return;
      }
      last = now;
      left.current = view.pose;
      // A locked view has said that it is locked.
      if (view.navigation.locked) stop();
      else asked = requestAnimationFrame(step);
    };
    asked = requestAnimationFrame(step);
    return () => {
      cancelAnimationFrame(asked);
      view.canvas.removeEventListener("pointerdown", stop);
      view.canvas.removeEventListener("wheel", stop);
    };
  }, [playing, stage]);
  return useCallback(() => {
    const view = stage();
    if (view) left.current = view.pose;
  }, [stage]);
}
