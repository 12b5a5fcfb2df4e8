import Box from "@mui/material/Box";
import type { ComponentRef } from "../api/client";
import { useComponent } from "../api/queries";
import { useSelection } from "../open/selection";
import { presentsNow, useTogether } from "../open/together/togetherState";
import { face, tone } from "../style/theme";

/** While something is presented: what is picked, in letters that are read from across a room. */
export function PickedLarge() {
  const shown = useTogether((s) => presentsNow(s) || s.following);
  const refs = useSelection((s) => s.refs);
  const [only] = refs;
  return shown && only && refs.length === 1 ? <Caption key={only.global_id} of={only} /> : null;
}

function Caption({ of }: { of: ComponentRef }) {
  const { data } = useComponent(of.model, of.global_id);
  if (!data) return null;
  return (
    <Box
      data-testid="picked-large"
      sx={{
        position: "absolute",
        top: 12,
        right: 12,
        maxWidth: "46%",
        bgcolor: tone.paper,
        borderLeft: `6px solid ${tone.pick}`,
        px: 2,
        py: 1,
        overflowWrap: "anywhere",
      }}
    >
      <Box sx={{ fontFamily: face.head, fontWeight: 600, fontSize: 40, lineHeight: 1.1 }}>
        {data.tag || data.name}
      </Box>
      {data.tag && <Box sx={{ fontSize: 28, lineHeight: 1.2 }}>{data.name}</Box>}
      {data.description && (
        <Box sx={{ fontSize: 22, lineHeight: 1.25, color: tone.soft }}>{data.description}</Box>
      )}
    </Box>
  );
}
