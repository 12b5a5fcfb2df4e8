import { type Style, useViewState } from "../open/visibility/viewState";

/** The styles in which the building is drawn, and what each is called. */
export const STYLES: readonly { style: Style; name: string; says: string }[] = [
  { style: "edges", name: "Shaded, with edges", says: "shaded, with edges" },
  { style: "plain", name: "Shaded", says: "shaded, without edges" },
  { style: "lines", name: "Lines only", says: "in lines, without what they hide" },
  { style: "clear", name: "See-through", says: "see-through" },
];

/** Draw the building in a style, as a change that can be undone. */
export function setStyle(style: Style): void {
  const { change, style: now } = useViewState.getState();
  const says = STYLES.find((each) => each.style === style)?.says;
  if (style !== now) change({ style }, `drew everything ${says}`);
}
