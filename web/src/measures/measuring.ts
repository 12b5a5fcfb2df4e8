import type { Shapes } from "../api/client";
import { perProject } from "../open/perProject";
import { type Measure, useViewState } from "../open/visibility/viewState";
import type { Aim } from "../stage/tools/tool";
import type { Lock } from "./locks";

export type What = Measure["what"];
export type Found = Shapes["MeasureFound"];

/** What is being measured, before it is kept in the view. */
interface Measuring {
  /** The points clicked so far, as they are held. */
  aims: readonly Aim[];
  lock: Lock;
  /** The row of the desk that is open. */
  opened: string | null;
}

export const useMeasuring = perProject<Measuring>(() => ({ aims: [], lock: "free", opened: null }));

const NAMES: Readonly<Record<What["kind"], string>> = {
  points: "a distance",
  between: "between two components",
  sides: "between two faces",
  face: "a face",
  room: "a room",
  volume: "a volume",
  clear: "the room there is",
};

/** Keep one more measure, and open its row. */
export function addMeasure(what: What, name = ""): void {
  const { measures, change } = useViewState.getState();
  const id = crypto.randomUUID().slice(0, 8);
  change({ measures: [...measures, { id, what, name }] }, `measured ${NAMES[what.kind]}`);
  useMeasuring.setState({ opened: id });
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
