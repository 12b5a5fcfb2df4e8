import { useEffect } from "react";
import { useTogether } from "../open/together/togetherState";
import { useOpen } from "../open/useStage";

/** Who moves the eye by hand while following looks away, until they come back. */
export function useLookingAway(): void {
  const { stage } = useOpen();
  const following = useTogether((s) => s.following);
  useEffect(() => {
    const canvas = stage()?.canvas;
    if (!following || !canvas) return;
    const away = () => useTogether.setState({ away: true });
    const drag = (event: PointerEvent) => {
      if (event.buttons) away();
    };
    canvas.addEventListener("wheel", away, { passive: true });
    canvas.addEventListener("pointermove", drag);
    return () => {
      canvas.removeEventListener("wheel", away);
      canvas.removeEventListener("pointermove", drag);
    };
  }, [stage, following]);
}
