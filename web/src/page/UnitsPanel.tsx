import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import { useHabits } from "../open/habits";
import { UNIT_NAMES, UNITS } from "../open/unitNames";
import { spokenLength } from "../open/units";
import { PanelHeading } from "../parts/Panel";
import { tone } from "../style/theme";

/** So long is the example: 2 metres, 17 millimetres and a bit. */
const EXAMPLE_M = 2.0176;

/** In what lengths are read and typed, on this browser. */
export function UnitsPanel() {
  const { units, set } = useHabits();
  return (
    <Box sx={{ p: 1.5, width: 300 }} data-testid="units-panel">
      <PanelHeading>Units of length</PanelHeading>
      <RadioGroup
        value={units}
        onChange={(event) => {
          const chosen = UNIT_NAMES.find((name) => name === event.target.value);
          if (chosen) set({ units: chosen });
        }}
      >
        {UNIT_NAMES.map((name) => (
          <FormControlLabel
            key={name}
            value={name}
            control={<Radio size="small" color="secondary" />}
            label={
              <>
                {UNITS[name]}
                <Box component="span" sx={{ color: tone.soft }}>
                  {" "}
                  · {spokenLength(EXAMPLE_M, name)}
                </Box>
              </>
            }
            slotProps={{ typography: { sx: { fontSize: 13 } } }}
          />
        ))}
      </RadioGroup>
      <Box sx={{ fontSize: 12.5, color: tone.soft, mt: 0.5 }}>
        Type lengths in any unit: 2.5 m, 2500 mm, 8' 2 1/2". Models stay in metres.
      </Box>
    </Box>
  );
}
