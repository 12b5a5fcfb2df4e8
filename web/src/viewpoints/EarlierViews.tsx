import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, blobAddress, type Viewpoint } from "../api/client";
import { keys } from "../api/queries";
import { spokenMoment } from "../open/dates";
import { useOpen } from "../open/useStage";
import { useViewpointActs } from "../open/views/useViewpointActs";
import { DeskNote } from "../parts/desk";
import { tone } from "../style/theme";

/** What a viewpoint was before others were kept over it, each with the way back. */
export function EarlierViews({ viewpoint }: { viewpoint: Viewpoint }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "Hide earlier views" : "Earlier views"}
      </Button>
      {open && <Listed viewpoint={viewpoint} />}
    </>
  );
}

function Listed({ viewpoint }: { viewpoint: Viewpoint }) {
  const { projectId } = useOpen();
  const { becomeEarlier } = useViewpointActs();
  const { data, error } = useQuery({
    queryKey: [...keys.viewpoints(projectId), viewpoint.id, "earlier"],
    queryFn: () =>
      answerOf(
        api.GET("/api/viewpoints/{viewpoint_id}/earlier", {
          params: { path: { viewpoint_id: viewpoint.id } },
        }),
      ),
  });
  return (
    <Box sx={{ width: "100%" }}>
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.length === 0 && <DeskNote>It was not replaced or framed yet.</DeskNote>}
      {data?.map((earlier) => (
        <Box
          key={earlier.id}
          data-testid="earlier-view"
          sx={{ display: "flex", alignItems: "center", gap: 0.75, fontSize: 12.5, py: 0.4 }}
        >
          <Box
            component="img"
            src={blobAddress(projectId, earlier.picture)}
            alt=""
            sx={{ width: 56, aspectRatio: "16 / 10", objectFit: "cover", border: `1px solid ${tone.line}` }}
          />
          <Box sx={{ flex: 1, color: tone.soft }}>until {spokenMoment(earlier.at)}</Box>
          <Button
            variant="text"
            aria-label={`Restore ${viewpoint.name} as it was until ${spokenMoment(earlier.at)}`}
            onClick={() => void becomeEarlier(viewpoint, earlier.id)}
          >
            Restore
          </Button>
        </Box>
      ))}
    </Box>
  );
}
