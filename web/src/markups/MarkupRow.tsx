import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { KeyboardEvent } from "react";
import { COLOURS, NAMES, putMarkup, removeMarkup, useMarking } from "../open/markups/marking";
import { usePlacing } from "../open/markups/usePlacing";
import type { Markup } from "../open/visibility/viewState";
import { DeskActs } from "../parts/desk";
import { KeptText } from "../parts/KeptText";
import { tone } from "../style/theme";

/** A press of an arrow key moves so much of the frame; with Shift ten times as much. */
const STEP = 0.006;
const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, STEP],
  ArrowDown: [0, -STEP],
};

/** One markup: what it says, and what can be done with it; arrows move the one in hand, Delete deletes it. */
export function MarkupRow({ markup }: { markup: Markup }) {
  const chosen = useMarking((s) => s.chosen === markup.id);
  const { move, back } = usePlacing();
  const name = NAMES[markup.kind];
  const needed = markup.kind === "text" || markup.kind === "callout";
  const words = needed || markup.text !== "";
  const key = (event: KeyboardEvent) => {
    const way = WAYS[event.key];
    if (way) {
      const times = event.shiftKey ? 10 : 1;
      void move(markup, [0, 0], [way[0] * times, way[1] * times]);
    } else if (event.key === "Delete") removeMarkup(markup.id);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <Box data-testid="markup" sx={{ borderTop: `1px solid ${tone.line}`, py: 0.5 }}>
      <Box
        component="button"
        type="button"
        aria-expanded={chosen}
        title="Arrow keys move it, Delete removes it"
        onClick={() => useMarking.setState({ chosen: chosen ? null : markup.id })}
        onKeyDown={key}
        sx={{
          border: 0,
          p: 0,
          width: "100%",
          minHeight: 28,
          bgcolor: "transparent",
          textAlign: "left",
          cursor: "pointer",
          font: "inherit",
          fontSize: 13,
          display: "flex",
          gap: 1,
          alignItems: "center",
          color: chosen ? tone.here : tone.ink,
        }}
      >
        <Box
          component="span"
          sx={{ width: 10, height: 10, flexShrink: 0, bgcolor: COLOURS[markup.colour].colour }}
        />
        <Box component="span" sx={{ overflowWrap: "anywhere" }}>
          {markup.text || name.replace(/^./, (c) => c.toUpperCase())}
        </Box>
      </Box>
      {chosen && (
        <>
          {markup.by && <Box sx={{ fontSize: 12, color: tone.soft }}>drawn by {markup.by}</Box>}
          {words ? (
            <KeptText
              label="Words"
              field={`words of markup ${markup.id}`}
              of="the selected markup"
              rows={2}
              value={markup.text}
              keep={(text) => {
                if (text || !needed) putMarkup({ ...markup, text }, `changed the text of a ${name}`);
              }}
            />
          ) : null}
          <DeskActs>
            <Button variant="text" onClick={() => back(markup)}>
              Look at it
            </Button>
            {!words && (
              <Button
                variant="text"
                onClick={() => putMarkup({ ...markup, text: "?" }, `added text to a ${name}`)}
              >
                Add text
              </Button>
            )}
            <Button variant="text" onClick={() => removeMarkup(markup.id)}>
              Delete
            </Button>
          </DeskActs>
        </>
      )}
    </Box>
  );
}
