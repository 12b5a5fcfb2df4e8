import Popover from "@mui/material/Popover";
import type { ReactNode } from "react";
import { type Panel, useTools } from "../open/tools";
import { tone } from "../style/theme";

/** A panel that lies over the page while it is the one that is open, above or below what opened it. */
export function PanelOver(props: {
  panel: Panel;
  anchor: HTMLElement | null;
  side: "above" | "below";
  children: ReactNode;
}) {
  const { panel, anchor, side, children } = props;
  const open = useTools((s) => s.panel === panel);
  const show = useTools((s) => s.showPanel);
  // One that is closed is gone at once: while it went it would take clicks from the stage.
  if (!open || !anchor) return null;
  return (
    <Popover
      open
      anchorEl={anchor}
      onClose={() => show(null)}
      anchorOrigin={{ vertical: side === "above" ? "top" : "bottom", horizontal: "left" }}
      transformOrigin={{ vertical: side === "above" ? "bottom" : "top", horizontal: "left" }}
      slotProps={{
        paper: { sx: { border: `1px solid ${tone.ink}`, boxShadow: "3px 3px 0 rgba(30,43,54,.15)" } },
        backdrop: { invisible: true },
      }}
    >
      {children}
    </Popover>
  );
}
