import Box from "@mui/material/Box";
import { useAttempt } from "../parts/attempt";
import { tone } from "../style/theme";
import { useMe, useSigning } from "./useMe";
import { Wrong } from "./Wrong";

/** In the demo: whom one can be, with one click each. */
export function DemoPeople() {
  const { data: me } = useMe();
  const { beOneOfTheDemo } = useSigning();
  const { wrong, attempt } = useAttempt();
  if (!me?.demo.length) return null;
  return (
    <Box sx={{ mb: 4, maxWidth: 520 }}>
      <Box sx={{ color: tone.soft, mb: 1 }}>
        This is the demo, on your own machine. Choose whom you want to be; the circle at the top right changes
        it.
      </Box>
      <Wrong text={wrong} />
      {me.demo.map(({ key, name, says }) => (
        <Box
          key={key}
          component="button"
          type="button"
          onClick={() => attempt(() => beOneOfTheDemo(key))}
          sx={{
            display: "block",
            width: "100%",
            textAlign: "left",
            font: "inherit",
            color: tone.ink,
            bgcolor: tone.paper,
            border: `1px solid ${tone.line}`,
            mt: "-1px",
            p: 1,
            cursor: "pointer",
            "&:hover": { borderColor: tone.ink, position: "relative" },
          }}
        >
          <b>{name}</b>{" "}
          <Box component="span" sx={{ color: tone.soft }}>
            {says}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
