import Box from "@mui/material/Box";
import { blobAddress } from "../api/client";
import { useViewpoints } from "../api/queries";
import type { Topic } from "../open/topics/listed";
import { useOpen } from "../open/useStage";
import { tone } from "../style/theme";

/** The small picture of a topic's first view; an empty frame where it has none. */
export function TopicPicture({ topic }: { topic: Topic }) {
  const { projectId } = useOpen();
  const { data } = useViewpoints(projectId);
  const view = data?.find(({ id }) => id === topic.views[0]);
  const frame = { width: 42, height: 26, border: `1px solid ${tone.line}`, bgcolor: tone.film, flex: "none" };
  if (!view) return <Box sx={frame} />;
  return (
    <Box
      component="img"
      src={blobAddress(projectId, view.picture)}
      alt=""
      loading="lazy"
      sx={{ ...frame, objectFit: "cover" }}
    />
  );
}
