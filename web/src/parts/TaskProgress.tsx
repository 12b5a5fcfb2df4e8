import Box from "@mui/material/Box";
import LinearProgress from "@mui/material/LinearProgress";
import { isBusy, type Task } from "../open/tasks/task";
import { tone } from "../style/theme";

/** How far a check or a sheet is, or why it came to no end. */
export function TaskProgress({ task }: { task: Task }) {
  const { status, share, message } = task;
  if (isBusy(task))
    return (
      <Box sx={{ my: 0.5 }}>
        <LinearProgress
          variant={status === "running" ? "determinate" : "indeterminate"}
          value={share * 100}
          color="secondary"
          aria-label={`${task.name}: progress`}
        />
        <Box sx={{ fontSize: 12.5, color: tone.soft }}>
          {status === "waiting" ? "waiting" : message || "begins"}
        </Box>
      </Box>
    );
  if (status === "failed" || status === "stopped")
    return <Box sx={{ fontSize: 12.5, color: status === "failed" ? tone.wrong : tone.soft }}>{message}</Box>;
  return null;
}
