import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { numberOf } from "../open/numbering";
import { useSelection } from "../open/selection";
import { useSession } from "../open/session";
import { useUnits } from "../open/units";
import { useOpen } from "../open/useStage";
import { useWalkState } from "../open/walking/walkState";
import { tone } from "../style/theme";

/** What stopped the body, with its clear size; a click picks it. */
export function StopLine() {
  const { federation } = useOpen();
  const stop = useWalkState((s) => s.stop);
  const units = useUnits();
  const { open } = useSession.getState();
  const { pick } = useSelection.getState();
  if (!stop) return null;
  const choose = () => {
    const by = stop.component;
    const number = by ? numberOf(federation, by.model, by.global_id) : -1;
    if (number >= 0) pick([number]);
    open("component");
  };
  return (
    <Box
      role="alert"
      data-testid="stop-line"
      sx={{
        bgcolor: tone.paper,
        border: `1px solid ${tone.pick}`,
        borderLeft: `4px solid ${tone.pick}`,
        px: 1.25,
        py: 0.5,
        display: "flex",
        gap: 1.25,
        alignItems: "baseline",
        fontSize: 13.5,
      }}
    >
      {units.within(stop.sentence)}
      {stop.component && (
        <Button variant="text" onClick={choose}>
          Show it
        </Button>
      )}
      <Button
        variant="text"
        onClick={() => {
          choose();
          open("viewpoints");
        }}
      >
        Keep a viewpoint
      </Button>
    </Box>
  );
}
