import Box from "@mui/material/Box";
import { useEffect, useRef } from "react";
import { focalMm, looking, type Pose } from "../stage/pose";
import { face, tone } from "../theme";
import { useSession } from "./session";
import { useOpen, useStageNews } from "./useStage";

/** What to do next on the left, how the eye stands on the right. */
export function Footer() {
  return (
    <Box
      component="footer"
      sx={{
        bgcolor: "#e8e4da",
        borderTop: `1px solid ${tone.line}`,
        display: "flex",
        alignItems: "center",
        px: 1.75,
        gap: 3,
        minWidth: 0,
      }}
    >
      <Prompt />
      <Box sx={{ flex: 1 }} />
      <Readouts />
    </Box>
  );
}

function Prompt() {
  const picked = useSession((s) => s.picked.length);
  const { pending, total, failed } = useStageNews();
  if (pending > 0) {
    return (
      <Box data-testid="prompt">
        Drawing the building: {total - pending} of {total} pieces
      </Box>
    );
  }
  if (failed.length) {
    return (
      <Box sx={{ color: tone.wrong }} data-testid="prompt">
        {failed.length} pieces of {[...new Set(failed)].join(", ")} did not arrive; reload the page to fetch
        them again.
      </Box>
    );
  }
  return (
    <Box data-testid="prompt" sx={{ fontSize: 13.5, lineHeight: 1.35 }}>
      Drag turns about the point under the cursor, right drag pans, the wheel zooms to it.{" "}
      <Box component="span" sx={{ color: tone.soft }}>
        {picked ? "Esc lets go of what is picked." : "Click picks a component."}
      </Box>
    </Box>
  );
}

const FIGURES = ["lens", "look", "eye"] as const;

/** Written straight to the page at every frame, without rendering React. */
function Readouts() {
  const { eye, federation } = useOpen();
  const refs = useRef<Partial<Record<(typeof FIGURES)[number], HTMLSpanElement>>>({});
  useEffect(
    () =>
      eye.listen((pose: Pose) => {
        const { bearingDeg, tiltDeg } = looking(pose);
        const own = (bearingDeg - federation.building_north_deg + 360) % 360;
        const texts = {
          lens: `${focalMm(pose.angleDeg).toFixed(0)} mm · ${pose.angleDeg.toFixed(0)}°`,
          look: `${(Math.round(own) % 360).toString().padStart(3, "0")}° · ${Math.abs(tiltDeg).toFixed(0)}°${tiltDeg >= 0.5 ? " down" : tiltDeg <= -0.5 ? " up" : ""}`,
          eye: `${pose.eye.z < 0 ? "−" : "+"}${Math.abs(pose.eye.z).toFixed(2)} m`,
        };
        for (const key of FIGURES) {
          const span = refs.current[key];
          if (span) span.textContent = texts[key];
        }
      }),
    [eye, federation],
  );
  const label = { lens: "LENS", look: "LOOK, FROM BUILDING NORTH", eye: "EYE" };
  return (
    <Box sx={{ display: "flex", gap: 3, whiteSpace: "nowrap" }}>
      {FIGURES.map((key) => (
        <Box key={key}>
          <Box
            sx={{
              fontFamily: face.head,
              fontWeight: 600,
              fontSize: 11,
              letterSpacing: ".05em",
              color: tone.soft,
            }}
          >
            {label[key]}
          </Box>
          <Box
            component="span"
            ref={(span: HTMLSpanElement | null) => {
              if (span) refs.current[key] = span;
            }}
            sx={{ fontFamily: face.figure, fontSize: 13 }}
          />
        </Box>
      ))}
    </Box>
  );
}
