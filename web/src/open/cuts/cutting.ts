import { type RefObject, useEffect } from "react";
import type { Federation } from "../../api/client";
import { perProject } from "../perProject";
import { useSession } from "../session";
import { UNIT_NAMES } from "../unitNames";
import { spokenIn, unitsNow } from "../units";
import { type Cut as Kept, useViewState } from "../visibility/viewState";
import { isLevel, moved, spokenHeight } from "./shape";

/** A cut while it is dragged; what it was before stays in the look until it is let go. */
interface Cutting {
  dragged: Kept | null;
  /** The row of the desk that is open. */
  opened: string | null;
}

export const useCutting = perProject<Cutting>(() => ({ dragged: null, opened: null }));

/** The cuts as they are now: one that is dragged where it is dragged to. */
export function withDragged(cuts: readonly Kept[], dragged: Kept | null): readonly Kept[] {
  return dragged ? cuts.map((cut) => (cut.id === dragged.id ? dragged : cut)) : cuts;
}

/** A cut in another shape; one that is called by its height is called by the new one. */
export function reshaped(federation: Pick<Federation, "levels">, from: Kept, shape: Kept["shape"]): Kept {
  const called = ({ shape: of }: Kept, units = unitsNow()) =>
    of.kind !== "box" && isLevel(of) ? spokenHeight(federation, of.point_m[2] ?? 0, units) : null;
  const now = { ...from, shape };
  // The person who made it may have other units.
  const byHeight = UNIT_NAMES.some((units) => from.name === called(from, spokenIn(units)));
  return { ...now, name: byHeight ? (called(now) ?? from.name) : from.name };
}

/** A cut with one of its sides carried along its normal. */
export function carriedTo(
  federation: Pick<Federation, "levels">,
  from: Kept,
  side: number,
  by: number,
): Kept {
  return reshaped(federation, from, moved(from.shape, side, by));
}

/** Keep a cut where it was moved to. */
export function keepMoved({ id, shape, name }: Kept): void {
  changeCut(id, { shape, name }, `moved the cut ${name}`);
}

/** End a drag: the cut is kept where it was dragged to, or stays where it was. */
export function endDrag(keep: boolean): void {
  const { dragged } = useCutting.getState();
  if (keep && dragged) keepMoved(dragged);
  useCutting.setState({ dragged: null });
}

/** Whatever takes away what is held in the middle of a drag ends the drag. */
export function useEndOfDrag(held: RefObject<unknown>): void {
  useEffect(
    () => () => {
      if (held.current) endDrag(false);
    },
    [held],
  );
}

/** Make one more cut, and open its row; false, with the reason said, where no more can be drawn. */
export function addCut(cut: Omit<Kept, "id" | "off">): boolean {
  const { cuts, change } = useViewState.getState();
  const same = cuts.find((each) => !each.off && JSON.stringify(each.shape) === JSON.stringify(cut.shape));
  if (same) {
    useCutting.setState({ opened: same.id });
    useSession.getState().say(`${same.name || "This cut"} is there already.`);
    return true;
  }
  const id = crypto.randomUUID().slice(0, 8);
  const made = change({ cuts: [...cuts, { ...cut, id, off: false }] }, `cut: ${cut.name}`);
  if (made) useCutting.setState({ opened: id });
  return made;
}

/** Change one cut, under a name. */
export function changeCut(id: string, part: Partial<Kept>, name: string): void {
  const { cuts, change } = useViewState.getState();
  change({ cuts: cuts.map((cut) => (cut.id === id ? { ...cut, ...part } : cut)) }, name);
}

export function removeCut(id: string): void {
  const { cuts, change } = useViewState.getState();
  const gone = cuts.find((cut) => cut.id === id);
  change({ cuts: cuts.filter((cut) => cut.id !== id) }, `removed the cut ${gone?.name ?? ""}`.trim());
}
