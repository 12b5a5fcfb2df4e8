import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { answerOf, api } from "../api/client";
import { useSession, withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { tone } from "../style/theme";

/** Why the building could not be put together or mapped the last time; it stays until that is so no more. */
export function Trouble() {
  const { federation } = useOpen();
  const open = useSession((s) => s.open);
  if (!federation.trouble) return null;
  const path = { project_id: federation.id };
  const again = () => answerOf(api.POST("/api/projects/{project_id}/federation", { params: { path } }));
  return (
    <Box
      role="alert"
      data-testid="trouble"
      sx={{
        position: "absolute",
        bottom: 12,
        right: 12,
        maxWidth: 420,
        bgcolor: tone.paper,
        border: `1px solid ${tone.wrong}`,
        borderLeftWidth: 4,
        px: 1.5,
        py: 1,
        fontSize: 13.5,
      }}
    >
      {federation.trouble}{" "}
      <Button variant="text" onClick={() => withErrorNotice(again)}>
        Try again
      </Button>
      <Button variant="text" onClick={() => open("models")}>
        Show the models
      </Button>
    </Box>
  );
}
