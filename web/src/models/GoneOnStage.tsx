import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { bytesOf, type Shapes } from "../api/client";
import { goneQuery } from "../api/queries";
import { useCompared } from "../open/compared";
import { useOpen } from "../open/useStage";
import { counted } from "../parts/words";
import { GoneBodies } from "../stage/layers/goneBodies";
import { tone } from "../style/theme";
import { colourOf } from "./differences";

const bodies = (of: Shapes["GoneBodies"], colour: string, filled: boolean) => ({
  colour,
  filled,
  triangles: new Float32Array(bytesOf(of.triangles)),
  edges: new Float32Array(bytesOf(of.edges)),
});

/** At the head of the legend, while an older issue is compared. */
export function GoneInLegend() {
  const compared = useCompared((s) => s.from !== null);
  return compared ? <GoneOnStage /> : null;
}

/** Draws what an older issue had where it stood, and says so. */
function GoneOnStage() {
  const { stage, federation, projectId } = useOpen();
  const { from, show } = useCompared();
  const { data, error } = useQuery({
    ...goneQuery(projectId, from?.model ?? "", from?.against ?? ":", federation.version),
    enabled: from !== null,
  });
  useEffect(() => {
    const drawn = stage()?.layer(GoneBodies);
    if (!data || !drawn) return;
    drawn.show([
      bodies(data.removed, colourOf("removed"), true),
      bodies(data.moved, colourOf("moved"), false),
    ]);
    return () => drawn.show([]);
  }, [stage, data]);
  if (!from) return null;
  const left = data ? data.removed.left_out + data.moved.left_out : 0;
  return (
    <Box data-testid="gone-sign" sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, alignItems: "center" }}>
      <Box
        component="span"
        sx={{
          width: 14,
          height: 14,
          border: `1px solid ${tone.soft}`,
          background: `repeating-linear-gradient(45deg, ${colourOf("removed")} 0 2px, transparent 2px 4px)`,
        }}
      />
      <span>
        {error
          ? error.message
          : data
            ? `${counted(data.removed.components.length, "component")} gone since the ${from.called}, ${data.moved.components.length} where they were${left ? `; ${left} more are not drawn` : ""}`
            : "Loading removed components…"}
      </span>
      <Button variant="text" sx={{ ml: 0 }} onClick={() => show(null)}>
        Close
      </Button>
    </Box>
  );
}
