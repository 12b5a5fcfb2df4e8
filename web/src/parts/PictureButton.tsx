import Box from "@mui/material/Box";
import { blobAddress, type Viewpoint } from "../api/client";
import { useOpen } from "../open/useStage";
import { useShowViewpoint } from "../open/views/viewpoints";
import { tone } from "../style/theme";

/** The small picture of a kept view: a click goes there. */
export function PictureButton({ view, testId }: { view: Viewpoint; testId: string }) {
  const { projectId } = useOpen();
  const show = useShowViewpoint();
  return (
    <Box
      component="button"
      type="button"
      data-testid={testId}
      aria-label={`Go to ${view.name}`}
      title={view.name}
      onClick={() => void show(view)}
      sx={{
        p: 0,
        border: `1px solid ${tone.line}`,
        bgcolor: tone.film,
        cursor: "pointer",
        "&:hover": { borderColor: tone.ink },
      }}
    >
      <Box
        component="img"
        src={blobAddress(projectId, view.picture)}
        alt=""
        sx={{ width: "100%", display: "block", aspectRatio: "16 / 10", objectFit: "cover" }}
      />
    </Box>
  );
}
