import Box from "@mui/material/Box";
import NativeSelect from "@mui/material/NativeSelect";
import { DISCIPLINES } from "../api/constants";
import { tone } from "../style/theme";

/** A discipline of a person or a group, or none, in the words of the form. */
export function DisciplineField(props: { value: string; put: (code: string) => void; none: string }) {
  const { value, put, none } = props;
  return (
    <Box component="label" sx={{ fontSize: 13, color: tone.soft }}>
      Discipline
      <NativeSelect fullWidth value={value} onChange={(event) => put(event.target.value)}>
        <option value="">{none}</option>
        {DISCIPLINES.map(([code, called]) => (
          <option key={code} value={code}>
            {code} {called}
          </option>
        ))}
      </NativeSelect>
    </Box>
  );
}
