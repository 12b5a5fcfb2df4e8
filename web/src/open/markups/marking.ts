import { tone } from "../../style/theme";
import { perProject } from "../perProject";
import { type Markup, useViewState } from "../visibility/viewState";

export type Kind = Markup["kind"];
export type Style = Pick<Markup, "colour" | "width_px" | "fill" | "text_share">;

/** A markup that is drawn and still wants its text: where in the frame, and where on the stage in pixels. */
interface Wanting {
  kind: Kind;
  drawn: readonly (readonly [number, number])[];
  through_m: number[];
  at: { x: number; y: number };
}

/** How the next markup is drawn, and which one is in hand. */
interface Marking {
  style: Style;
  chosen: string | null;
  wanting: Wanting | null;
}

export const useMarking = perProject<Marking>(() => ({
  style: { colour: "pick", width_px: 2.5, fill: false, text_share: 0.028 },
  chosen: null,
  wanting: null,
}));

export const COLOURS: Readonly<Record<Style["colour"], { name: string; colour: string }>> = {
  pick: { name: "ochre", colour: tone.pick },
  ink: { name: "ink", colour: tone.ink },
  here: { name: "teal", colour: tone.here },
  plum: { name: "plum", colour: tone.plum },
};

export const WIDTHS = [
  [1.5, "fine"],
  [2.5, "medium"],
  [5, "broad"],
] as const;

export const SIZES = [
  [0.02, "small"],
  [0.028, "medium"],
  [0.045, "large"],
] as const;

export const NAMES: Readonly<Record<Kind, string>> = {
  cloud: "cloud",
  arrow: "arrow",
  text: "text",
  callout: "callout",
  rectangle: "rectangle",
  ellipse: "ellipse",
  polyline: "polyline",
  line: "line",
  freehand: "freehand line",
  path: "line in space",
};

const MOST = 500;

/** Keep one more markup in the view, and take it in hand. */
export function addMarkup(markup: Markup): string {
  const { markups, change } = useViewState.getState();
  if (markups.length >= MOST)
    return `A view has at most ${MOST} markups. Save this view and continue in another one.`;
  change({ markups: [...markups, markup] }, `drew a ${NAMES[markup.kind]}`);
  useMarking.setState({ chosen: markup.id });
  return "";
}

/** Put one markup in the place of that with its key, under a name. */
export function putMarkup(markup: Markup, name: string): void {
  const { markups, change } = useViewState.getState();
  change({ markups: markups.map((each) => (each.id === markup.id ? markup : each)) }, name);
}

export function removeMarkup(id: string): void {
  const { markups, change } = useViewState.getState();
  const gone = markups.find((each) => each.id === id);
  if (!gone) return;
  change({ markups: markups.filter((each) => each.id !== id) }, `deleted a ${NAMES[gone.kind]}`);
  useMarking.setState({ chosen: null });
}

/** Draw the next ones so, and the one in hand too. */
export function restyle(part: Partial<Style>): void {
  const { style, chosen } = useMarking.getState();
  useMarking.setState({ style: { ...style, ...part } });
  const markup = useViewState.getState().markups.find(({ id }) => id === chosen);
  if (markup) putMarkup({ ...markup, ...part }, `restyled a ${NAMES[markup.kind]}`);
}
