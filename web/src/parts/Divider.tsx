import Box from "@mui/material/Box";
import { useRef } from "react";
import { tone } from "../style/theme";

/** The left or upper edge of a pane: drag it, or use the arrow keys, to give it more room or less; double-click for as much as usual. */
export function Divider(props: {
  label: string;
  edge?: "left" | "top";
  value: number;
  least: number;
  most: number;
  step: number;
  usual: number;
  /** The value where the pane would begin so far from the window's left, or from its top. */
  at: (pane: HTMLElement, client: number) => number;
  put: (value: number) => void;
}) {
  const { edge = "left", value, least, most, step, usual, at, put } = props;
  const dragging = useRef(false);
  const within = (wished: number) => put(Math.max(least, Math.min(most, wished)));
  return (
    <Box
      role="slider"
      tabIndex={0}
      aria-label={props.label}
      aria-valuenow={Math.round(value)}
      aria-valuemin={least}
      aria-valuemax={most}
      title="Drag to resize, double-click to reset"
      onKeyDown={(event) => {
        const [more, less] = edge === "left" ? ["ArrowLeft", "ArrowRight"] : ["ArrowUp", "ArrowDown"];
        const by = event.key === more ? step : event.key === less ? -step : 0;
        if (!by) return;
        event.stopPropagation();
        event.preventDefault();
        within(value + by);
      }}
      onDoubleClick={() => put(usual)}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        dragging.current = true;
      }}
      onPointerMove={(event) => {
        const pane = event.currentTarget.parentElement;
        if (dragging.current && pane) within(at(pane, edge === "left" ? event.clientX : event.clientY));
      }}
      onPointerUp={() => {
        dragging.current = false;
      }}
      onPointerCancel={() => {
        dragging.current = false;
      }}
      sx={{
        position: "absolute",
        ...(edge === "left"
          ? { left: -5, top: 0, bottom: 0, width: 9, cursor: "ew-resize" }
          : { left: 0, top: -5, right: 0, height: 9, cursor: "ns-resize" }),
        zIndex: 2,
        touchAction: "none",
        "&:hover, &:focus-visible": { bgcolor: tone.here, opacity: 0.35 },
      }}
    />
  );
}
