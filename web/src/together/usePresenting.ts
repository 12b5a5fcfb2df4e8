import { useEffect } from "react";
import { eyeOf, toView } from "../open/document";
import { inProject } from "../open/origin";
import { useSelection } from "../open/selection";
import { presentsNow, useTogether } from "../open/together/togetherState";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";

const EYE_MS = 50;
const POINTER_MS = 80;
const LOOK_MS = 120;

/** Calls at most so often, and always for the last. */
function paced(ms: number, work: () => void) {
  let timer = 0;
  let last = 0;
  const run = () => {
    timer = 0;
    last = performance.now();
    work();
  };
  return {
    ask: () => {
      if (!timer) timer = window.setTimeout(run, Math.max(0, last + ms - performance.now()));
    },
    stop: () => window.clearTimeout(timer),
  };
}

/** Who presents tells the others where the eye is, what is seen and done, and where the cursor points. */
export function usePresenting(): void {
  const { federation, stage, eye } = useOpen();
  const presenting = useTogether(presentsNow);
  const line = useTogether((s) => s.line);
  useEffect(() => {
    const view = stage();
    if (!presenting || !line || !view) return;
    let named = "began to present";
    const looks = paced(EYE_MS, () => {
      const { eye: now, through_m } = eyeOf(view.seen, federation.origin_m);
      line.tell({ kind: "looks", eye: now, through_m });
    });
    const sees = paced(LOOK_MS, () => {
      const seen = useViewState.getState();
      line.tell({
        kind: "sees",
        view: toView(federation, view.seen, seen, useSelection.getState().refs),
        did: named,
      });
      named = "";
    });
    let last = useViewState.getState().history;
    const offSeen = useViewState.subscribe((now) => {
      const { history } = now;
      if (history === last) return;
      const undone = history.at < last.at && history.steps.length === last.steps.length;
      const step = undone ? last.steps[last.at] : history.steps[history.at];
      last = history;
      // The core names what was done when it has answered.
      if (step?.name) named = undone ? `undid: ${step.name}` : step.name;
      sees.ask();
    });
    const offPicked = useSelection.subscribe(() => sees.ask());
    const offEye = eye.listen(() => looks.ask());
    let at: { x: number; y: number } | null = null;
    const points = paced(POINTER_MS, () => {
      const hit = at && view.componentAt(at.x, at.y);
      const there = hit ? inProject(hit.point, federation.origin_m) : undefined;
      line.tell({ kind: "points", at_m: there ?? null });
    });
    const move = (event: PointerEvent) => {
      at = { x: event.offsetX, y: event.offsetY };
      points.ask();
    };
    const leave = () => {
      at = null;
      points.ask();
    };
    const { canvas } = view;
    canvas.addEventListener("pointermove", move);
    canvas.addEventListener("pointerleave", leave);
    sees.ask();
    looks.ask();
    return () => {
      for (const each of [looks, sees, points]) each.stop();
      offSeen();
      offPicked();
      offEye();
      canvas.removeEventListener("pointermove", move);
      canvas.removeEventListener("pointerleave", leave);
    };
  }, [presenting, line, federation, stage, eye]);
}
