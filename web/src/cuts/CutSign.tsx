import { letters } from "../style/lettering";
import { face, tone } from "../style/theme";

/** How wide and high a tab's sign is, with letters of the usual size. */
const SIGN_PX = 44;
export const TAB_PX = 32;

/** What a cut's tab looks like: a short heavy line in the plane with the ways it goes, a grip to tilt it by, and its name. */
export function CutSign(props: {
  /** How large letters are. */
  share: number;
  leans: boolean;
  /** Its name in figures, as that of a level cut is. */
  figures: boolean;
  name: string;
}) {
  const { share, leans, figures, name } = props;
  return (
    <>
      <svg
        width={SIGN_PX * share}
        height={TAB_PX * share}
        viewBox={`0 ${-TAB_PX / 2} ${SIGN_PX} ${TAB_PX}`}
        aria-hidden="true"
        style={{ overflow: "visible" }}
      >
        <g style={{ transform: "translate(22px, 0) rotate(var(--way))" }}>
          {/* On paper, so that it is seen on any background. */}
          <path d="M0 -19V19M-21 0H21" stroke={tone.paper} strokeWidth={9} />
          <path d="M0 -18V18" stroke={tone.ink} strokeWidth={4} />
          <path
            d="M6 0H20M14 -5L20 0L14 5M-6 0H-20M-14 -5L-20 0L-14 5"
            stroke={tone.ink}
            strokeWidth={1.6}
            fill="none"
          />
          {leans && (
            <g data-grip="" data-testid="cut-grip" style={{ cursor: "grab" }}>
              <circle cx={0} cy={-26} r={16} fill="transparent" />
              <circle cx={0} cy={-26} r={6} fill={tone.paper} stroke={tone.ink} strokeWidth={2} />
            </g>
          )}
        </g>
      </svg>
      {name && (
        <span
          style={{
            background: tone.paper,
            border: `1.5px solid ${tone.ink}`,
            padding: "2px 7px",
            fontFamily: figures ? face.figure : face.head,
            fontSize: letters(12.5),
            fontWeight: 600,
            color: tone.ink,
            whiteSpace: "nowrap",
          }}
        >
          {name}
        </span>
      )}
    </>
  );
}
