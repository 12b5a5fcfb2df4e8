import type { Federation } from "../api/client";
import { TOP_STOREY_M } from "../api/constants";
import { addCut, removeCut, useCutting } from "../open/cuts/cutting";
import { toMilli } from "../open/cuts/shape";
import { useHabits } from "../open/habits";
import { type Cut, useViewState } from "../open/visibility/viewState";
import type { Stage } from "../stage/stage";

/** So high above a storey its lid comes off: below its ceilings, above what one does in its rooms. */
export const LID_M = 2.3;
const LIFT_MS = 600;

const nameOf = (level: string) => `Lid of ${level}`;

/** How high something is on its way from one height to another, so that it starts and ends softly. */
export function onItsWay(fromM: number, toM: number, share: number): number {
  const t = Math.max(0, Math.min(1, share));
  return fromM + (toM - fromM) * t * t * (3 - 2 * t);
}

/** Let the lid come off from above; the cut is where it ends from the first, and is only drawn on its way. */
function lift(cut: Cut, fromM: number, toM: number): void {
  const begun = performance.now();
  const step = (now: number) => {
    const share = (now - begun) / LIFT_MS;
    // Somebody else drags a cut by now, or it is gone.
    const { dragged } = useCutting.getState();
    if (dragged && dragged.id !== cut.id) return;
    const there = useViewState.getState().cuts.some(({ id }) => id === cut.id);
    if (share >= 1 || !there) {
      useCutting.setState({ dragged: null });
      return;
    }
    const shape = { ...cut.shape, point_m: [0, 0, onItsWay(fromM, toM, share)] } as Cut["shape"];
    useCutting.setState({ dragged: { ...cut, shape } });
    requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
}

/** Take the lid off a storey: everything above its rooms; a second time puts it back. */
export function liftLid(federation: Federation, stage: Stage | null, level: number, overM = LID_M): void {
  const storey = federation.levels[level];
  if (!storey) return;
  const name = nameOf(storey.name);
  const { cuts } = useViewState.getState();
  const lifted = cuts.find((cut) => cut.name === name && !cut.off);
  if (lifted) {
    removeCut(lifted.id);
    return;
  }
  const heightM = toMilli(storey.elevation_m + overM);
  if (!addCut({ name, shape: { kind: "plane", point_m: [0, 0, heightM], normal: [0, 0, 1] } })) return;
  const made = useViewState.getState().cuts.at(-1);
  const highest = (federation.bounds_m?.[1]?.[2] ?? heightM + TOP_STOREY_M) + 0.1;
  if (made && stage && !stage.slow && !useHabits.getState().instant) lift(made, highest, heightM);
}
