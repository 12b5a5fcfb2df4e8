import Box from "@mui/material/Box";
import { useEffect, useRef } from "react";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { face, tone } from "../style/theme";
import { heightShare, type Row } from "./board";

/** A line across the board at the height of the eye; follows it without rendering React. */
export function EyeMark({ rows }: { rows: readonly Row[] }) {
  const { eye } = useOpen();
  const units = useUnits();
  const mark = useRef<HTMLDivElement>(null);
  const label = useRef<HTMLSpanElement>(null);
  useEffect(
    () =>
      eye.listen((pose) => {
        if (!mark.current || !label.current) return;
        const { share, beyond } = heightShare(rows, pose.eye.z);
        mark.current.style.top = `${share * 100}%`;
        mark.current.dataset.beyond = beyond;
        label.current.textContent = `eye ${units.shortHeight(pose.eye.z)}${beyond === "above" ? " ↑" : beyond === "below" ? " ↓" : ""}`;
      }),
    [eye, rows, units],
  );
  return (
    <>
      <Box
        component="span"
        ref={label}
        data-testid="eye-mark"
        sx={{
          position: "absolute",
          left: 0,
          bottom: "100%",
          fontFamily: face.figure,
          fontSize: 12,
          fontWeight: 600,
          lineHeight: "16px",
          color: tone.here,
        }}
      />
      <Box
        ref={mark}
        sx={{
          position: "absolute",
          left: -8,
          right: -6,
          height: 0,
          borderTop: `2px solid ${tone.here}`,
          pointerEvents: "none",
          "&::before": {
            content: '""',
            position: "absolute",
            left: 0,
            top: -6,
            border: "5px solid transparent",
            borderLeft: `9px solid ${tone.here}`,
          },
        }}
      />
    </>
  );
}
