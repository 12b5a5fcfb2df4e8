import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useEffect, useRef } from "react";
import { type Place, useTrail } from "../open/trail/trail";
import { useTrailSteps } from "../open/trail/useTrailKeeper";
import type { DrawingKind, ViewKind } from "../stage/view";
import { face, STRIP, tone } from "../style/theme";

/** How high the pictures are while the strip is closed, and under the cursor. */
const CLOSED_PX = 20;
const OPEN_PX = 58;

const SAID: Readonly<Record<ViewKind, { name: string; testId: string }>> = {
  stage: { name: "Trail", testId: "place" },
  drawing: { name: "Trail of the drawing", testId: "drawing-place" },
  second: { name: "Trail of the second drawing", testId: "second-place" },
};

/** The places the eye has rested, as a strip of pictures to step through; under the cursor, or by key, they stand up. */
export function Trail({ of = "stage" }: { of?: ViewKind }) {
  const places = useTrail(of, (s) => s.places);
  const at = useTrail(of, (s) => s.at);
  const { goTo, back, forward, first } = useTrailSteps(of);
  const beside = of !== "stage";
  // The keys go along the trail of the upper one.
  const keyed = of !== "second";
  const here = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the strip follows the present place
  useEffect(() => {
    here.current?.scrollIntoView({ inline: "nearest", block: "nearest" });
  }, [at, places]);
  return (
    <Box
      component="nav"
      aria-label={SAID[of].name}
      sx={{ display: "flex", gap: 1.25, minWidth: 0, flex: 1, height: "100%", alignItems: "center" }}
    >
      <Box sx={{ flex: "0 0 auto", lineHeight: 1.2 }}>
        <Box sx={{ display: "flex", gap: 1 }}>
          <Step name="back" keyName={beside ? (keyed ? "{" : "") : "["} off={at <= 0} onClick={back} />
          <Step
            name="forward"
            keyName={beside ? (keyed ? "}" : "") : "]"}
            off={at >= places.length - 1}
            onClick={forward}
          />
        </Box>
        <Button
          variant="text"
          onClick={first}
          disabled={!places.length}
          sx={{ color: tone.soft, fontSize: 12, p: 0, lineHeight: 1.1 }}
        >
          Opening view
        </Button>
      </Box>
      <Box sx={{ position: "relative", flex: 1, minWidth: 0, alignSelf: "stretch" }}>
        <Box
          data-testid={beside ? undefined : "trail-pictures"}
          onKeyDown={alongTheStrip}
          sx={{
            position: "absolute",
            left: 0,
            right: 0,
            bottom: 0,
            zIndex: 4,
            display: "flex",
            gap: 1,
            px: 0.5,
            py: "2px",
            alignItems: "end",
            overflowX: "auto",
            scrollbarWidth: "none",
            bgcolor: STRIP,
            "& img": { height: CLOSED_PX, transition: "height .12s" },
            "&:hover, &:has(:focus-visible)": {
              boxShadow: `0 -1px 0 ${tone.line}, 0 -6px 12px rgba(30,43,54,.12)`,
              "& img": { height: OPEN_PX },
            },
          }}
        >
          {places.map((place, i) => (
            <Card
              key={place.id}
              place={place}
              testId={SAID[of].testId}
              present={i === at}
              innerRef={i === at ? here : undefined}
              onClick={() => goTo(i)}
            />
          ))}
        </Box>
      </Box>
    </Box>
  );
}

/** The arrow keys go from picture to picture, and Esc gives the keys back to the stage. */
function alongTheStrip(event: React.KeyboardEvent): void {
  const { activeElement } = document;
  const next =
    event.key === "ArrowRight"
      ? activeElement?.nextElementSibling
      : event.key === "ArrowLeft"
        ? activeElement?.previousElementSibling
        : null;
  if (event.key === "Escape" && activeElement instanceof HTMLElement) activeElement.blur();
  else if (next instanceof HTMLElement) next.focus();
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function Step(props: { name: string; keyName: string; off: boolean; onClick: () => void }) {
  return (
    <Button
      variant="text"
      onClick={props.onClick}
      disabled={props.off}
      sx={{ fontSize: 13, gap: 0.5, p: 0, lineHeight: 1.2 }}
    >
      {props.name}
      {props.keyName && (
        <Box
          component="kbd"
          sx={{
            fontFamily: face.figure,
            fontSize: 12,
            border: `1px solid ${tone.soft}`,
            borderRadius: "3px",
            px: 0.5,
            lineHeight: "15px",
            display: "inline-block",
          }}
        >
          {props.keyName}
        </Box>
      )}
    </Button>
  );
}

function Card(props: {
  place: Place;
  testId: string;
  present: boolean;
  innerRef: React.Ref<HTMLButtonElement> | undefined;
  onClick: () => void;
}) {
  const { place, present } = props;
  return (
    <Tooltip title={place.cause}>
      <Box
        component="button"
        type="button"
        ref={props.innerRef}
        data-testid={props.testId}
        aria-current={present ? "location" : undefined}
        onClick={props.onClick}
        sx={{
          flex: "0 0 auto",
          width: 88,
          p: 0,
          border: 0,
          bgcolor: "transparent",
          cursor: "pointer",
          textAlign: "left",
          fontFamily: face.text,
          "&:hover img": { borderColor: tone.ink },
        }}
      >
        <Box
          component="img"
          src={place.picture}
          alt=""
          sx={{
            display: "block",
            width: 88,
            objectFit: "cover",
            boxSizing: "border-box",
            border: `2px solid ${present ? tone.here : tone.line}`,
          }}
        />
        <Box
          sx={{
            fontSize: 12,
            lineHeight: "14px",
            color: present ? tone.here : tone.soft,
            fontWeight: present ? 600 : 400,
            whiteSpace: "nowrap",
            overflow: "hidden",
            textOverflow: "ellipsis",
          }}
        >
          {place.cause}
        </Box>
      </Box>
    </Tooltip>
  );
}

/** The places of a drawing's own eye. */
export function DrawingTrail({ of }: { of: DrawingKind }) {
  return <Trail of={of} />;
}
