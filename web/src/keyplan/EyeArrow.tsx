import type { Ref } from "react";
import { tone } from "../style/theme";

const EYE_PX = 11;

/** The eye and where it looks; with a second head when it is above or below the storey. */
export function EyeArrow({ innerRef }: { innerRef: Ref<SVGGElement> }) {
  return (
    <g ref={innerRef} data-eye="" data-testid="eye-on-plan" className="eye-arrow" style={{ cursor: "move" }}>
      <style>{`.eye-arrow[data-off="no"] .second{display:none}.eye-arrow[data-beyond="yes"] .sight{display:none}`}</style>
      <path className="sight" d="M0 0 L-17 -40 A44 44 0 0 1 17 -40 Z" fill={tone.here} opacity={0.2} />
      <circle r={EYE_PX} fill="transparent" />
      <path d="M0 -9 L6 3 L0 0 L-6 3 Z" fill={tone.here} stroke={tone.paper} strokeWidth={1} />
      <path
        className="second"
        d="M0 13 L6 1 L0 4 L-6 1 Z"
        fill={tone.here}
        stroke={tone.paper}
        strokeWidth={1}
      />
    </g>
  );
}
