import Box from "@mui/material/Box";
import { useLayoutEffect, useRef } from "react";
import { find } from "../open/numbering";
import { useOpen, useStageNews } from "../open/useStage";
import { useTypes } from "../open/useTypes";
import type { ViewKind } from "../stage/view";
import { face, tone } from "../style/theme";
import { besideCursor } from "./besideCursor";
import { CAUGHT } from "./words";

/** The region that is being drawn; around components also what it means. */
export function RegionBox({ where }: { where: ViewKind }) {
  const region = useStageNews((s) => s.region);
  if (region?.where !== where) return null;
  return (
    <Box
      data-testid="region"
      sx={{
        position: "absolute",
        left: region.x,
        top: region.y,
        width: region.width,
        height: region.height,
        border: `1.5px ${region.how === "touching" ? "dashed" : "solid"} ${tone.here}`,
        bgcolor: region.how === "touching" ? "transparent" : "rgba(14,124,134,.1)",
        pointerEvents: "none",
      }}
    >
      {region.how && (
        <Box
          component="span"
          sx={{
            position: "absolute",
            left: -1,
            top: "100%",
            bgcolor: tone.here,
            color: tone.paper,
            px: 0.75,
            fontSize: 12,
            whiteSpace: "nowrap",
          }}
        >
          {region.how === "inside" ? "only components fully inside" : "also components it touches"}
        </Box>
      )}
    </Box>
  );
}

/** Names the component under the cursor and its type, beside it. */
export function HoverLabel({ where }: { where: ViewKind }) {
  const { hovered, hoverAt, caught } = useStageNews();
  const { federation, stage } = useOpen();
  const typeOf = useTypes();
  const label = useRef<HTMLElement>(null);
  // Its width is known once it is laid out, with each component's words.
  useLayoutEffect(() => {
    const view = where === "stage" ? stage()?.main : stage()?.drawings[where];
    if (!label.current || !hoverAt || !view) return;
    const { offsetWidth: width, offsetHeight: height } = label.current;
    const { left, top } = besideCursor(hoverAt, { width, height }, view.size);
    label.current.style.transform = `translate(${left}px, ${top}px)`;
  });
  if (hovered < 0 || hoverAt?.where !== where) return null;
  const found = find(federation, hovered);
  if (!found) return null;
  const type = typeOf(hovered);
  const discipline = federation.disciplines[found.model.discipline[found.at] ?? 0];
  return (
    <Box
      ref={label}
      sx={{
        position: "absolute",
        left: 0,
        top: 0,
        pointerEvents: "none",
        bgcolor: tone.ink,
        color: tone.paper,
        px: 1,
        py: 0.4,
        fontSize: 12.5,
        whiteSpace: "nowrap",
        borderRadius: "2px",
      }}
    >
      <Box component="span" sx={{ fontFamily: face.head, fontWeight: 600, mr: 0.8, color: "#fff" }}>
        {discipline?.code}
      </Box>
      {found.model.labels[found.at]}
      {type && (
        <Box component="span" sx={{ ml: 1, color: "#c5cdd3" }}>
          {type}
        </Box>
      )}
      {caught && (
        <Box component="span" data-testid="caught" sx={{ ml: 1, color: "#c5cdd3" }}>
          {CAUGHT[caught]}
        </Box>
      )}
    </Box>
  );
}
