import type { ReactNode } from "react";

/** Whether something that was pressed is a button of the drawing, and not the drawing itself. */
export function onDrawnButton(target: EventTarget): boolean {
  return target instanceof Element && target.closest("[data-drawn-button]") !== null;
}

/** A button inside a drawing, by mouse and by keyboard. */
export function DrawnButton(props: { label: string; onPress: () => void; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button cannot be drawn inside an SVG
    <g
      role="button"
      tabIndex={0}
      aria-label={props.label}
      data-drawn-button=""
      style={{ cursor: "pointer" }}
      onClick={props.onPress}
      onKeyDown={(event) => event.key === "Enter" && props.onPress()}
    >
      {props.children}
    </g>
  );
}
