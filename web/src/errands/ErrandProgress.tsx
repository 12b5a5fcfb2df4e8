import Box from "@mui/material/Box";
import LinearProgress from "@mui/material/LinearProgress";
import { tone } from "../theme";
import { type Errand, isBusy } from "./errand";

/** How far a check or a sheet is, or why it came to no end. */
export function ErrandProgress({ errand }: { errand: Errand }) {
  const { status, share, message } = errand;
  if (isBusy(errand))
    return (
      <Box sx={{ my: 0.5 }}>
        <LinearProgress
          variant={status === "running" ? "determinate" : "indeterminate"}
          value={share * 100}
          color="secondary"
          aria-label={`${errand.name}: how far it is`}
        />
        <Box sx={{ fontSize: 12.5, color: tone.soft }}>
          {status === "waiting" ? "waits for its turn" : message || "begins"}
        </Box>
      </Box>
    );
  if (status === "failed" || status === "stopped")
    return <Box sx={{ fontSize: 12.5, color: status === "failed" ? tone.wrong : tone.soft }}>{message}</Box>;
  return null;
}
