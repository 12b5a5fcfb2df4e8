import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useProjectActs, useProjects } from "../api/queries";
import type { Attempt } from "../parts/attempt";
import { counted } from "../parts/words";
import { tone } from "../style/theme";

/** Projects that were thrown away, each with the way back; not there while the bin is empty. */
export function Bin({ attempt }: { attempt: Attempt }) {
  const { data } = useProjects(true);
  const [open, setOpen] = useState(false);
  const { restore } = useProjectActs();
  if (!data?.length) return null;
  return (
    <Box sx={{ mt: 4 }} data-testid="bin">
      <Button variant="text" onClick={() => setOpen(!open)} aria-expanded={open}>
        {open ? "Close bin" : `Bin: ${counted(data.length, "project")}`}
      </Button>
      {open && (
        <Box sx={{ color: tone.soft, fontSize: 13 }}>
          A project is removed for good when it has been here for 30 days.
        </Box>
      )}
      {open &&
        data.map((project) => (
          <Box
            key={project.id}
            sx={{ display: "flex", gap: 1.5, alignItems: "baseline", fontSize: 14, py: 0.5 }}
          >
            <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>{project.name}</Box>
            <Box sx={{ color: tone.soft }}>{counted(project.models, "model")}</Box>
            <Button variant="text" onClick={() => attempt(() => restore.mutateAsync(project.id))}>
              Restore
            </Button>
          </Box>
        ))}
    </Box>
  );
}
