import Box from "@mui/material/Box";
import { face, tone } from "../style/theme";

/** A number as it was typed, with a comma or a point; null for what is none. */
export function parsed(text: string): number | null {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) && Math.abs(value) <= 1e8 ? value : null;
}

/** What is wrong with the first of some numbers that is none, or nothing. */
export function wrongFigure(texts: readonly string[]): string {
  const wrong = texts.find((text) => parsed(text) === null);
  if (wrong === undefined) return "";
  if (wrong.trim() === "") return "A number is missing. Type it, or 0.";
  return `${wrong.trim()} is not a valid number. Type one such as 12.5, at most 100,000,000.`;
}

/** So many letters fit where three numbers stand beside one another in a desk as wide as usual. */
const LONG = 9;

/** A row of numbers to type, each with its name above; what is no number is marked. */
export function Figures(props: {
  labels: readonly string[];
  /** Whose numbers they are, for who hears the page. */
  about: string;
  values: readonly string[];
  set: (values: string[]) => void;
  /** What each text stands for, null for nothing; a plain number unless said otherwise. */
  parse?: (text: string) => number | null;
}) {
  const { labels, about, values, set, parse = parsed } = props;
  // Feet with inches and their fractions are longer than three beside one another have room for.
  const longest = Math.max(...values.map((each) => each.length));
  const columns = longest > LONG ? Math.min(2, labels.length) : labels.length;
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, gap: 0.5 }}>
      {labels.map((label, i) => (
        <Box component="label" key={label} sx={{ fontSize: 12, color: tone.soft }}>
          {label}
          <Box
            component="input"
            inputMode="decimal"
            aria-label={`${label} ${about}`}
            aria-invalid={parse(values[i] ?? "") === null}
            value={values[i] ?? ""}
            onChange={(event) => set(values.map((v, k) => (k === i ? event.target.value : v)))}
            sx={{
              width: "100%",
              minWidth: 0,
              fontFamily: face.figure,
              fontSize: 12,
              color: tone.ink,
              bgcolor: "#fff",
              border: `1px solid ${parse(values[i] ?? "") === null ? tone.wrong : tone.line}`,
              px: 0.25,
              py: 0.4,
            }}
          />
        </Box>
      ))}
    </Box>
  );
}
