import Box from "@mui/material/Box";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useId } from "react";
import { tone } from "../style/theme";

/** A field of the pages for signing in, with its name above and what it takes below. */
export function SignInField(props: {
  label: string;
  value: string;
  put: (text: string) => void;
  /** What the browser may fill in. */
  fills: "username" | "name" | "current-password" | "new-password" | "one-time-code" | "off";
  hint?: string;
  first?: boolean;
}) {
  const { label, value, put, fills, hint, first } = props;
  const about = useId();
  return (
    <Box sx={{ fontSize: 13, color: tone.soft }}>
      <Box component="label" sx={{ display: "block" }}>
        {label}
        <OutlinedInput
          fullWidth
          autoFocus={first}
          value={value}
          type={fills.endsWith("password") ? "password" : "text"}
          onChange={(event) => put(event.target.value)}
          inputProps={{
            autoComplete: fills,
            maxLength: 200,
            spellCheck: false,
            autoCapitalize: "none",
            "aria-describedby": hint ? about : undefined,
          }}
        />
      </Box>
      {hint && (
        <Box id={about} sx={{ fontSize: 12.5, mt: 0.25 }}>
          {hint}
        </Box>
      )}
    </Box>
  );
}
