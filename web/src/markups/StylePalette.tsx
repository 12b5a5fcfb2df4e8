import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { COLOURS, restyle, SIZES, type Style, useMarking, WIDTHS } from "../open/markups/marking";
import { useViewState } from "../open/visibility/viewState";
import { Tick } from "../parts/Tick";
import { tone } from "../style/theme";

const COLOUR_NAMES = ["pick", "ink", "here", "plum"] as const satisfies readonly Style["colour"][];

/** How the next markup is drawn, and the one in hand: colour, thickness, size of letters, filled or not. */
export function StylePalette() {
  const next = useMarking((s) => s.style);
  const chosen = useMarking((s) => s.chosen);
  const inHand = useViewState((s) => s.markups.find(({ id }) => id === chosen));
  const style = inHand ?? next;
  return (
    <Box sx={{ display: "grid", rowGap: 0.5, mb: 1 }} data-testid="markup-style">
      <Row label="Colour">
        {COLOUR_NAMES.map((name) => (
          <Choice
            key={name}
            label={COLOURS[name].name}
            on={style.colour === name}
            put={() => restyle({ colour: name })}
          >
            <Box sx={{ width: 18, height: 18, borderRadius: "50%", bgcolor: COLOURS[name].colour }} />
          </Choice>
        ))}
      </Row>
      <Row label="Line">
        {WIDTHS.map(([width, name]) => (
          <Choice
            key={name}
            label={name}
            on={style.width_px === width}
            put={() => restyle({ width_px: width })}
          >
            <Box sx={{ width: 20, height: width, bgcolor: tone.ink }} />
          </Choice>
        ))}
      </Row>
      <Row label="Letters">
        {SIZES.map(([share, name]) => (
          <Choice
            key={name}
            label={`text ${name}`}
            on={style.text_share === share}
            put={() => restyle({ text_share: share })}
          >
            <Box sx={{ fontSize: 8 + share * 240, lineHeight: 1, fontWeight: 600 }}>A</Box>
          </Choice>
        ))}
      </Row>
      <Tick label="Filled" on={style.fill} set={(fill) => restyle({ fill })} />
    </Box>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 0.5 }}>
      <Box sx={{ width: 52, fontSize: 12, color: tone.soft }}>{label}</Box>
      {children}
    </Box>
  );
}

function Choice(props: { label: string; on: boolean; put: () => void; children: ReactNode }) {
  return (
    <Box
      component="button"
      type="button"
      aria-label={props.label}
      aria-pressed={props.on}
      title={props.label}
      onClick={props.put}
      sx={{
        width: 32,
        height: 28,
        p: 0,
        display: "grid",
        placeItems: "center",
        border: `1px solid ${props.on ? tone.ink : tone.line}`,
        bgcolor: props.on ? "#fff" : "transparent",
        color: tone.ink,
        cursor: "pointer",
        boxShadow: props.on ? `inset 0 -3px 0 ${tone.here}` : "none",
      }}
    >
      {props.children}
    </Box>
  );
}
