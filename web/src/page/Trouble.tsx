import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { answerOf, api } from "../api/client";
import { useConnection } from "../api/connection";
import { useSession, withErrorNotice } from "../open/session";
import { useOpen, useStageNews } from "../open/useStage";
import { counted } from "../parts/words";
import { tone } from "../style/theme";

/** Why the building could not be put together or mapped the last time; it stays until that is so no more. */
export function Trouble() {
  const { federation } = useOpen();
  const open = useSession((s) => s.open);
  const failed = useStageNews((s) => s.failed);
  const away = useConnection((s) => s.away);
  // That the server is away says all that can be said by then.
  if (away) return null;
  if (!federation.trouble) return failed.length > 0 ? <Missing of={failed} /> : null;
  const path = { project_id: federation.id };
  const again = () => answerOf(api.POST("/api/projects/{project_id}/federation", { params: { path } }));
  return (
    <Standing>
      {federation.trouble}{" "}
      <Button variant="text" onClick={() => withErrorNotice(again)}>
        Try again
      </Button>
      <Button variant="text" onClick={() => open("models")}>
        Show the models
      </Button>
    </Standing>
  );
}

function Missing({ of }: { of: readonly string[] }) {
  return (
    <Standing>
      {counted(of.length, "piece")} of {[...new Set(of)].join(", ")} could not be loaded.{" "}
      <Button variant="text" onClick={() => window.location.reload()}>
        Load the page again
      </Button>
    </Standing>
  );
}

function Standing({ children }: { children: ReactNode }) {
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
      {children}
    </Box>
  );
}
