import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type Kind, NAMES, useMarking } from "../open/markups/marking";
import { useTools } from "../open/tools";
import { useViewState } from "../open/visibility/viewState";
import { DeskHeading, DeskNote } from "../parts/desk";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { MarkupRow } from "./MarkupRow";
import { StylePalette } from "./StylePalette";
import { toolOf, useMarks } from "./useMarks";

const KINDS = [
  "cloud",
  "arrow",
  "callout",
  "text",
  "freehand",
  "line",
  "polyline",
  "rectangle",
  "ellipse",
] as const satisfies readonly Kind[];

/** What is drawn over the view by hand: the tools for it, how they draw, and what there is. */
export function MarkupsDesk() {
  const markups = useViewState((s) => s.markups);
  const change = useViewState((s) => s.change);
  return (
    <Box>
      <DeskHeading>{markups.length ? counted(markups.length, "markup") : "Markups"}</DeskHeading>
      {!markups.length && (
        <DeskNote>
          No markups yet. Markups keep their place in the model and are saved with viewpoints and links.
        </DeskNote>
      )}
      <Ways />
      <StylePalette />
      {[...markups].reverse().map((markup) => (
        <MarkupRow key={markup.id} markup={markup} />
      ))}
      {markups.length > 1 && (
        <Button
          variant="text"
          onClick={() => {
            useMarking.setState({ chosen: null });
            change({ markups: [] }, "deleted all markups");
          }}
        >
          Delete all
        </Button>
      )}
    </Box>
  );
}

function Ways() {
  const { take } = useMarks();
  const inHand = useTools((s) => s.tool?.name);
  return (
    <Box
      data-testid="markup-ways"
      sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, my: 1, "& button": { color: tone.ink } }}
    >
      {KINDS.map((kind) => (
        <Button
          key={kind}
          variant="outlined"
          aria-pressed={inHand === toolOf(kind)}
          sx={inHand === toolOf(kind) ? { "&, &:hover": { boxShadow: `inset 0 -3px 0 ${tone.here}` } } : {}}
          onClick={() => take(kind)}
        >
          {NAMES[kind].replace(" line", "").replace(/^./, (c) => c.toUpperCase())}
        </Button>
      ))}
    </Box>
  );
}
