import Box from "@mui/material/Box";
import { face, tone } from "../theme";

/** A number as it was typed, with a comma or a point; null for what is none. */
export function parsed(text: string): number | null {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) && Math.abs(value) <= 1e8 ? value : null;
}

/** A row of numbers to type, each with its name above; what is no number is marked. */
export function Figures(props: {
  labels: readonly string[];
  /** Whose numbers they are, for who hears the page. */
  about: string;
  values: readonly string[];
  set: (values: string[]) => void;
}) {
  const { labels, about, values, set } = props;
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: `repeat(${labels.length}, minmax(0, 1fr))`, gap: 0.5 }}>
      {labels.map((label, i) => (
        <Box component="label" key={label} sx={{ fontSize: 12, color: tone.soft }}>
          {label}
          <Box
            component="input"
            inputMode="decimal"
            aria-label={`${label} ${about}`}
            aria-invalid={parsed(values[i] ?? "") === null}
            value={values[i] ?? ""}
            onChange={(event) => set(values.map((v, k) => (k === i ? event.target.value : v)))}
            sx={{
              width: "100%",
              minWidth: 0,
              fontFamily: face.figure,
              fontSize: 11.5,
              color: tone.ink,
              bgcolor: "#fff",
              border: `1px solid ${parsed(values[i] ?? "") === null ? tone.wrong : tone.line}`,
              px: 0.25,
              py: 0.4,
            }}
          />
        </Box>
      ))}
    </Box>
  );
}
