import type { Direction } from "../open/plan/directions";
import { DrawnButton } from "../parts/DrawnButton";
import { useFinger } from "../parts/useFinger";
import { FINGER_PX, face, tone } from "../style/theme";

export const RING_PX = 19;

function at(middle: number, radius: number, bearingDeg: number) {
  const turn = (bearingDeg * Math.PI) / 180;
  return { x: middle + radius * Math.sin(turn), y: middle - radius * Math.cos(turn) };
}

/** The bearing ring: ticks, letters of the compass, and a mark for each side and corner to look from. */
export function Ring(props: {
  size: number;
  /** The sides and corners with their bearings on the ring. */
  sides: readonly { direction: Direction; bearingDeg: number; title: string }[];
  onSide: (direction: Direction) => void;
}) {
  const { size, sides } = props;
  const hit = useFinger() ? FINGER_PX / 2 : 9;
  const middle = size / 2;
  const outer = middle - 1.5;
  return (
    <g>
      {Array.from({ length: 24 }, (_, i) => i * 15)
        .filter((bearing) => bearing % 90)
        .map((bearing) => {
          const a = at(middle, outer - RING_PX + 1, bearing);
          const b = at(middle, outer - RING_PX + (bearing % 45 ? 5 : 8), bearing);
          return (
            <line key={bearing} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={tone.soft} strokeWidth={1} />
          );
        })}
      {[..."NESW"].map((letter, i) => {
        const p = at(middle, outer - RING_PX / 2, i * 90);
        return (
          <text
            key={letter}
            x={p.x}
            y={p.y + 4}
            textAnchor="middle"
            fontSize={12}
            fontWeight={600}
            fontFamily={face.head}
            fill={tone.ink}
            style={{ pointerEvents: "none" }}
          >
            {letter}
          </text>
        );
      })}
      {sides.map(({ direction, bearingDeg, title }) => {
        const p = at(middle, outer - RING_PX / 2, bearingDeg);
        return (
          <DrawnButton key={direction.name} label={title} onPress={() => props.onSide(direction)}>
            <title>{title}</title>
            <circle cx={p.x} cy={p.y} r={hit} fill="transparent" />
            <circle cx={p.x} cy={p.y} r={bearingDeg % 90 ? 2.2 : 0} fill={tone.soft} />
          </DrawnButton>
        );
      })}
    </g>
  );
}

/** The mark on the ring that shows the bearing; it is turned by its group. */
export function Needle({ size }: { size: number }) {
  const middle = size / 2;
  const tip = 2;
  return (
    <path
      d={`M${middle} ${RING_PX + 3} L${middle - 6.5} ${tip + 3} L${middle + 6.5} ${tip + 3} Z`}
      fill={tone.here}
      stroke={tone.paper}
      strokeWidth={1}
    />
  );
}
