import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { type Upload, uploadsOf, useUploads } from "../open/uploads";
import { tone } from "../style/theme";

const SAID: Record<Upload["status"], string> = {
  waiting: "waits",
  sending: "uploading",
  sent: "sent",
  failed: "",
  cancelled: "",
};

/** Files on their way, each with its progress, cancel and retry. */
export function UploadList({ projectId }: { projectId: string }) {
  const items = useUploads((s) => s.items).filter((u) => u.projectId === projectId);
  const acts = uploadsOf(projectId);
  const done = items.some((u) => u.status !== "waiting" && u.status !== "sending");
  return (
    <Box sx={{ mt: 1.25, display: "grid", gap: 0.75 }} data-testid="uploads">
      {items.map((upload) => (
        <Box key={upload.id} data-testid="upload" data-status={upload.status} sx={{ fontSize: 13 }}>
          <Box sx={{ display: "flex", gap: 1, alignItems: "baseline" }}>
            <Box sx={{ flex: 1, overflowWrap: "anywhere" }}>{upload.file.name}</Box>
            <Box sx={{ color: tone.soft }}>{SAID[upload.status]}</Box>
            {(upload.status === "waiting" || upload.status === "sending") && (
              <Button variant="text" onClick={() => acts.cancel(upload.id)}>
                Cancel
              </Button>
            )}
            {(upload.status === "failed" || upload.status === "cancelled") && (
              <Button variant="text" onClick={() => acts.retry(upload.id)}>
                Send again
              </Button>
            )}
          </Box>
          {upload.status === "sending" && (
            <LinearProgress variant="determinate" value={upload.share * 100} color="secondary" />
          )}
          {upload.message && (
            <Box sx={{ color: upload.status === "failed" ? tone.wrong : tone.soft }}>{upload.message}</Box>
          )}
        </Box>
      ))}
      {done && (
        <Button variant="text" sx={{ justifySelf: "start" }} onClick={acts.clear}>
          Clear list
        </Button>
      )}
    </Box>
  );
}
