import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useProjectActs, useProjects } from "../api/queries";
import { tone } from "../theme";

/** Projects that were thrown away, each with the way back; not there while the bin is empty. */
export function Bin() {
  const { data } = useProjects(true);
  const [open, setOpen] = useState(false);
  const [wrong, setWrong] = useState("");
  const { restore } = useProjectActs();
  if (!data?.length) return null;
  return (
    <Box sx={{ mt: 4 }} data-testid="bin">
      <Button variant="text" onClick={() => setOpen(!open)} aria-expanded={open}>
        {open ? "close the bin" : `the bin: ${data.length} ${data.length === 1 ? "project" : "projects"}`}
      </Button>
      {wrong && <Box sx={{ color: tone.wrong, fontSize: 13 }}>{wrong}</Box>}
      {open &&
        data.map((project) => (
          <Box
            key={project.id}
            sx={{ display: "flex", gap: 1.5, alignItems: "baseline", fontSize: 14, py: 0.5 }}
          >
            <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>{project.name}</Box>
            <Box sx={{ color: tone.soft }}>
              {project.models} {project.models === 1 ? "model" : "models"}
            </Box>
            <Button
              variant="text"
              onClick={() =>
                restore.mutate(project.id, { onError: (failed: Error) => setWrong(failed.message) })
              }
            >
              bring it back
            </Button>
          </Box>
        ))}
    </Box>
  );
}
