import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useModelAct, useModels } from "../api/queries";
import { spokenMoment } from "../open/dates";
import { withErrorNotice } from "../open/session";
import { useOpen } from "../open/useStage";
import { tone } from "../style/theme";

/** Models that were taken out of the building, each with the way back; not there while there are none. */
export function TakenOut() {
  const { projectId } = useOpen();
  const { data } = useModels(projectId, true);
  const act = useModelAct(projectId);
  const [open, setOpen] = useState(false);
  if (!data?.length) return null;
  return (
    <Box data-testid="taken-out" sx={{ borderTop: `1px solid ${tone.line}`, pt: 1, fontSize: 13 }}>
      <Button variant="text" onClick={() => setOpen(!open)} aria-expanded={open}>
        {open ? "Hide removed models" : `Removed models: ${data.length}`}
      </Button>
      {open &&
        data.map((model) => (
          <Box
            key={model.id}
            sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", gap: 1, py: 0.5 }}
          >
            <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>
              {model.name}
              <Box sx={{ color: tone.soft, fontWeight: 400, fontSize: 12.5 }}>
                {model.file_name}, added {spokenMoment(model.added_at)}
              </Box>
            </Box>
            <Button
              variant="text"
              sx={{ flexShrink: 0 }}
              aria-label={`Restore ${model.name}`}
              onClick={() => void withErrorNotice(() => act.mutateAsync({ id: model.id, act: "restore" }))}
            >
              Restore
            </Button>
          </Box>
        ))}
    </Box>
  );
}
