import type { Shapes } from "../api/client";
import { perProject } from "../open/perProject";
import { type Measure, useViewState } from "../open/visibility/viewState";
import type { Aim } from "../stage/tools/tool";
import type { Lock } from "./locks";

export type What = Measure["what"];
export type Found = Shapes["MeasureFound"];

/** What was clicked for a measure, in the project's coordinates, and whether the measure is in the view by now. */
interface Clicked {
  points_m: readonly number[][];
  kept: boolean;
}

/** What is being measured, before it is kept in the view. */
interface Measuring {
  /** The points clicked so far, as they are held. */
  aims: readonly Aim[];
  lock: Lock;
  /** The row of the desk that is open. */
  opened: string | null;
  /** What was clicked, by the ids of the measures: it is drawn until their figures are there. */
  clicked: Readonly<Record<string, Clicked>>;
}

export const useMeasuring = perProject<Measuring>(() => ({
  aims: [],
  lock: "free",
  opened: null,
  clicked: {},
}));

const NAMES: Readonly<Record<What["kind"], string>> = {
  points: "a distance",
  between: "between two components",
  sides: "between two faces",
  face: "a face",
  room: "a room",
  volume: "a volume",
  clear: "the room there is",
};

/** Draw what was clicked for a measure to come, in the project's coordinates; the id that the measure is to have. */
export function beginMeasure(points_m: readonly number[][]): string {
  const id = crypto.randomUUID().slice(0, 8);
  useMeasuring.setState(({ clicked }) => ({ clicked: { ...clicked, [id]: { points_m, kept: false } } }));
  return id;
}

/** Nothing comes of what was clicked. */
export function dropMeasure(id: string): void {
  useMeasuring.setState(({ clicked: { [id]: _, ...clicked } }) => ({ clicked }));
}

/** Keep one more measure, and open its row. */
export function addMeasure(what: What, id = beginMeasure([])): void {
  const { measures, change } = useViewState.getState();
  change({ measures: [...measures, { id, what, name: "" }] }, `measured ${NAMES[what.kind]}`);
  useMeasuring.setState(({ clicked }) => ({
    opened: id,
    clicked: { ...clicked, [id]: { points_m: clicked[id]?.points_m ?? [], kept: true } },
  }));
}

/** The lines to draw of what was clicked, in the project's coordinates: of each whose figures are not there yet. */
export function pendingLines(
  clicked: Measuring["clicked"],
  measures: readonly Measure[],
  found: (measure: Measure) => Found | undefined,
): (readonly number[][])[] {
  return Object.entries(clicked).flatMap(([id, { points_m, kept }]) => {
    const measure = measures.find((each) => each.id === id);
    const waits = measure ? !found(measure) : !kept;
    return waits && points_m.length > 1 ? [points_m] : [];
  });
}

/** Change one measure, under a name. */
export function changeMeasure(id: string, part: Partial<Measure>, name: string): void {
  const { measures, change } = useViewState.getState();
  change({ measures: measures.map((each) => (each.id === id ? { ...each, ...part } : each)) }, name);
}

export function removeMeasure(id: string): void {
  const { measures, change } = useViewState.getState();
  change({ measures: measures.filter((each) => each.id !== id) }, "deleted a measure");
}
