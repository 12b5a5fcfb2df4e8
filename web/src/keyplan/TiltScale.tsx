import { type PointerEvent, type Ref, useRef } from "react";
import { DrawnButton, onDrawnButton } from "../parts/DrawnButton";
import { useFinger } from "../parts/useFinger";
import { enlarged } from "../style/lettering";
import { FINGER_PX, face, tone } from "../style/theme";

const MARKS = [
  { tiltDeg: 90, name: "plan", short: "plan" },
  { tiltDeg: 45, name: "from above", short: "above" },
  { tiltDeg: 0, name: "level", short: "level" },
  { tiltDeg: -45, name: "from below", short: "below" },
  { tiltDeg: -90, name: "straight up", short: "up" },
] as const;
const END_PX = 12;
const WIDTH = 54;

export function tiltPlace(tiltDeg: number, height: number): number {
  return END_PX + ((90 - tiltDeg) / 180) * (height - 2 * END_PX);
}

/** How far the view looks down or up: a scale to click and to drag on. */
export function TiltScale(props: {
  height: number;
  mark: Ref<SVGGElement>;
  onMark: (tiltDeg: number) => void;
  onDrag: (tiltDeg: number, first: boolean) => void;
}) {
  const { height } = props;
  const hit = useFinger() ? FINGER_PX : 18;
  const dragging = useRef(false);
  const tiltOf = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const down = (event.clientY - box.top) / enlarged(event.currentTarget);
    const share = (down - END_PX) / (height - 2 * END_PX);
    return Math.max(-90, Math.min(90, 90 - share * 180));
  };
  return (
    <svg
      width={WIDTH}
      height={height}
      role="application"
      aria-label="Tilt scale"
      data-testid="tilt-scale"
      style={{ touchAction: "none", overflow: "visible" }}
      onPointerDown={(event) => {
        if (onDrawnButton(event.target)) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        dragging.current = true;
        props.onDrag(tiltOf(event), true);
      }}
      onPointerMove={(event) => dragging.current && props.onDrag(tiltOf(event), false)}
      onPointerUp={() => {
        dragging.current = false;
      }}
    >
      <rect x={0} y={0} width={24} height={height} fill="transparent" style={{ cursor: "ns-resize" }} />
      <line x1={12} x2={12} y1={END_PX} y2={height - END_PX} stroke={tone.ink} strokeWidth={1.5} />
      {MARKS.map(({ tiltDeg, name, short }) => {
        const y = tiltPlace(tiltDeg, height);
        return (
          <DrawnButton key={tiltDeg} label={`Look ${name}`} onPress={() => props.onMark(tiltDeg)}>
            <title>{`Look ${name}`}</title>
            <rect x={20} y={y - hit / 2} width={WIDTH - 20} height={hit} fill="transparent" />
            <line x1={7} x2={17} y1={y} y2={y} stroke={tone.ink} strokeWidth={1.2} />
            <text x={23} y={y + 3.5} fontSize={12} fontFamily={face.head} fontWeight={600} fill={tone.soft}>
              {short}
            </text>
          </DrawnButton>
        );
      })}
      <g ref={props.mark} style={{ cursor: "ns-resize" }}>
        <circle cx={12} cy={0} r={6} fill={tone.here} stroke={tone.paper} strokeWidth={1.5} />
      </g>
    </svg>
  );
}
