import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useTools } from "../open/tools";
import { tone } from "../style/theme";
import { LOCK_NAMES, LOCKS } from "./locks";
import { useMeasuring } from "./measuring";

/** While a distance is being measured: what the next point is held to, and the end of a chain. */
export function LockBar() {
  const tool = useTools((s) => s.tool);
  const { aims, lock } = useMeasuring();
  if (!tool?.hover || !aims.length) return null;
  return (
    <Box
      role="group"
      aria-label="Hold the next point"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        bgcolor: tone.paper,
        border: `1px solid ${tone.ink}`,
        px: 1,
        fontSize: 13,
        columnGap: 0.25,
      }}
    >
      <Box sx={{ mr: 0.5 }}>Next point</Box>
      {LOCK_NAMES.map((name) => (
        <Button
          key={name}
          variant="text"
          aria-pressed={name === lock}
          onClick={() => useMeasuring.setState({ lock: name })}
          sx={{
            minWidth: 0,
            minHeight: 32,
            px: 0.75,
            color: tone.ink,
            fontWeight: name === lock ? 700 : 400,
            boxShadow: name === lock ? `inset 0 -3px 0 ${tone.here}` : "none",
          }}
        >
          {LOCKS[name]}
        </Button>
      ))}
      {tool.finish && aims.length > 1 && (
        <Button variant="outlined" sx={{ ml: 0.5, my: 0.25 }} onClick={() => tool.finish?.()}>
          End the chain
        </Button>
      )}
    </Box>
  );
}
