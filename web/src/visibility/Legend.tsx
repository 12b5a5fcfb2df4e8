import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useCompared } from "../open/compared";
import { OVER_STAGE } from "../open/looking/covered";
import { MATERIALS, materialColours, tradeColours } from "../open/visibility/tints";
import { useSeeing } from "../open/visibility/useSeeing";
import { useViewState } from "../open/visibility/viewState";
import { DeskActs } from "../parts/desk";
import { Slot } from "../parts/feature";
import { tone } from "../style/theme";
import { called } from "./called";

/** What the tints mean: a click on one shows it alone; and what else is drawn that is not the building. */
export function Legend() {
  const lines = useViewState((s) => s.lines);
  const seeing = useSeeing();
  const tints = lines.filter(
    ({ rule }) => rule.effect === "tint" && rule.colour && rule.colour !== MATERIALS && !rule.off,
  );
  const head = useCompared((s) => s.from !== null);
  if (!tints.length && !head) return null;
  return (
    <Box
      {...OVER_STAGE}
      role="region"
      aria-label="Legend of the tints"
      data-testid="legend"
      sx={{
        position: "absolute",
        right: 12,
        bottom: 54,
        maxWidth: 230,
        maxHeight: "44%",
        overflow: "auto",
        bgcolor: tone.paper,
        border: `1px solid ${tone.line}`,
        p: 1,
        fontSize: 12.5,
      }}
    >
      <Slot of="legend" told={{}} />
      {tints.map(({ rule, says, decides }) => (
        <Box
          key={`${rule.colour} ${says}`}
          component="button"
          type="button"
          title="Show this alone"
          onClick={() => seeing.only(rule.select)}
          sx={{
            border: 0,
            p: 0,
            py: 0.25,
            width: "100%",
            bgcolor: "transparent",
            font: "inherit",
            color: tone.ink,
            display: "flex",
            gap: 0.75,
            alignItems: "center",
            cursor: "pointer",
            textAlign: "left",
            "&:hover": { textDecoration: "underline" },
          }}
        >
          <Box
            component="span"
            sx={{ flex: "0 0 14px", height: 14, bgcolor: rule.colour, border: `1px solid ${tone.soft}` }}
          />
          <span>{rule.why || called(says)}</span>
          {decides === 0 && (
            <Box component="span" sx={{ color: tone.soft }}>
              none
            </Box>
          )}
        </Box>
      ))}
      {tints.length > 0 && (
        <DeskActs>
          <Button variant="text" onClick={tradeColours}>
            Discipline colours
          </Button>
          <Button variant="text" onClick={materialColours}>
            Material colours
          </Button>
        </DeskActs>
      )}
    </Box>
  );
}
