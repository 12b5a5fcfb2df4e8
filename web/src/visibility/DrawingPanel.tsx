import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import NativeSelect from "@mui/material/NativeSelect";
import { BACKGROUNDS, useHabits } from "../open/habits";
import { MATERIALS, materialColours, tradeColours } from "../open/visibility/tints";
import { useViewState } from "../open/visibility/viewState";
import { PanelHeading, Row } from "../parts/Panel";
import { tone } from "../style/theme";
import { Highlights } from "./Highlights";
import { STYLES, setStyle } from "./styles";

const IN_FULL = {
  quick: "when still, if drawing is fast",
  always: "always when still",
  pictures: "in saved pictures",
} as const;

/** How the building is drawn: its style, its colours, those of what is picked, and what it stands before. */
export function DrawingPanel() {
  const style = useViewState((s) => s.style);
  const rules = useViewState((s) => s.rules);
  const { background, inFull, set } = useHabits();
  const tints = rules.filter(({ effect, off }) => effect === "tint" && !off);
  const own = tints.length > 0 && tints.every(({ colour }) => colour === MATERIALS);
  return (
    <Box sx={{ p: 1.5, width: 340 }} data-testid="drawing-panel">
      <PanelHeading>Drawn</PanelHeading>
      <Row>
        {STYLES.map(({ style: each, name }) => (
          <Pressed key={each} on={style === each} act={() => setStyle(each)}>
            {name}
          </Pressed>
        ))}
      </Row>
      <PanelHeading>In the colours of</PanelHeading>
      <Row>
        <Pressed on={tints.length === 0} act={tradeColours}>
          Disciplines
        </Pressed>
        <Pressed on={own} act={materialColours}>
          Materials
        </Pressed>
      </Row>
      {tints.length > 0 && !own && (
        <Box sx={{ fontSize: 12.5, color: tone.soft }}>Tints are on. See the legend.</Box>
      )}
      <PanelHeading>Before</PanelHeading>
      <Row>
        {(Object.keys(BACKGROUNDS) as (keyof typeof BACKGROUNDS)[]).map((each) => (
          <Pressed key={each} on={background === each} act={() => set({ background: each })}>
            {each}
          </Pressed>
        ))}
      </Row>
      <Highlights />
      <PanelHeading>Shade in corners, and outlines</PanelHeading>
      <NativeSelect
        value={inFull}
        onChange={(event) => {
          const chosen = (Object.keys(IN_FULL) as (keyof typeof IN_FULL)[]).find(
            (each) => each === event.target.value,
          );
          if (chosen) set({ inFull: chosen });
        }}
        inputProps={{ "aria-label": "When to draw shade and outlines" }}
        sx={{ fontSize: 13 }}
      >
        {Object.entries(IN_FULL).map(([each, name]) => (
          <option key={each} value={each}>
            {name}
          </option>
        ))}
      </NativeSelect>
    </Box>
  );
}

function Pressed(props: { on: boolean; act: () => void; children: string }) {
  return (
    <Button
      variant={props.on ? "contained" : "outlined"}
      aria-pressed={props.on}
      onClick={props.act}
      sx={{ textTransform: "none" }}
    >
      {props.children}
    </Button>
  );
}
