import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import NativeSelect from "@mui/material/NativeSelect";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import { useHabits } from "../open/habits";
import { LETTERINGS } from "../open/letterSizes";
import { UNIT_NAMES, UNITS } from "../open/unitNames";
import { spokenLength } from "../open/units";
import { PanelHeading } from "../parts/Panel";
import { tone } from "../style/theme";

/** So long is the example: 2 metres, 17 millimetres and a bit. */
const EXAMPLE_M = 2.0176;

/** In what lengths are read and typed, and how large letters are, on this browser. */
export function UnitsPanel() {
  const { units, lettering, set } = useHabits();
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
      <PanelHeading>Size of letters</PanelHeading>
      <NativeSelect
        value={String(lettering)}
        inputProps={{ "aria-label": "Size of letters" }}
        sx={{ fontSize: 13 }}
        onChange={(event) => {
          const chosen = LETTERINGS.find((each) => String(each) === event.target.value);
          if (chosen) set({ lettering: chosen });
        }}
      >
        {LETTERINGS.map((each) => (
          <option key={each} value={String(each)}>
            {each === "auto" ? "Follows the window" : `${Math.round(each * 100)} %`}
          </option>
        ))}
      </NativeSelect>
    </Box>
  );
}
