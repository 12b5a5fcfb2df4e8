import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useEffect, useRef } from "react";
import { type Place, useTrail } from "../open/trail/trail";
import { useTrailSteps } from "../open/trail/useTrailKeeper";
import type { ViewKind } from "../stage/view";
import { face, tone } from "../style/theme";

/** The places the eye has rested, as a strip of pictures to step through. */
export function Trail({ of = "stage" }: { of?: ViewKind }) {
  const places = useTrail(of, (s) => s.places);
  const at = useTrail(of, (s) => s.at);
  const { goTo, back, forward, first } = useTrailSteps(of);
  const beside = of === "drawing";
  const here = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the strip follows the present place
  useEffect(() => {
    here.current?.scrollIntoView({ inline: "nearest", block: "nearest" });
  }, [at, places]);
  return (
    <Box
      component="nav"
      aria-label={beside ? "Trail of the drawing" : "Trail"}
      sx={{ display: "flex", gap: 1.5, minWidth: 0, flex: 1, height: "100%" }}
    >
      <Box sx={{ flex: "0 0 auto", pt: beside ? 0.5 : 1 }}>
        {!beside && (
          <Box
            component="h2"
            sx={{ m: 0, fontFamily: face.head, fontSize: 12, letterSpacing: ".06em", color: tone.soft }}
          >
            TRAIL
          </Box>
        )}
        <Box sx={{ display: "flex", gap: 1, mt: 0.25 }}>
          <Step name="back" keyName={beside ? "{" : "["} off={at <= 0} onClick={back} />
          <Step name="forward" keyName={beside ? "}" : "]"} off={at >= places.length - 1} onClick={forward} />
        </Box>
        <Button
          variant="text"
          onClick={first}
          disabled={!places.length}
          sx={{ color: tone.soft, fontSize: 12 }}
        >
          Opening view
        </Button>
      </Box>
      <Box
        sx={{
          display: "flex",
          gap: 1,
          overflowX: "auto",
          scrollbarWidth: "none",
          minWidth: 0,
          flex: 1,
          alignItems: "center",
        }}
      >
        {places.map((place, i) => (
          <Card
            key={place.id}
            place={place}
            testId={beside ? "drawing-place" : "place"}
            present={i === at}
            innerRef={i === at ? here : undefined}
            onClick={() => goTo(i)}
          />
        ))}
      </Box>
    </Box>
  );
}

function Step(props: { name: string; keyName: string; off: boolean; onClick: () => void }) {
  return (
    <Button variant="text" onClick={props.onClick} disabled={props.off} sx={{ fontSize: 13, gap: 0.5 }}>
      {props.name}
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
            height: 46,
            objectFit: "cover",
            boxSizing: "border-box",
            border: `2px solid ${present ? tone.here : tone.line}`,
          }}
        />
        <Box
          sx={{
            fontSize: 12,
            lineHeight: "15px",
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

/** The places of the drawing's own eye. */
export function DrawingTrail() {
  return <Trail of="drawing" />;
}
