import { tone } from "../style/theme";

/** A plain field of a desk. */
export const FIELD = {
  width: "100%",
  fontFamily: "inherit",
  fontSize: 13,
  color: tone.ink,
  border: `1px solid ${tone.line}`,
  bgcolor: "#fff",
  px: 0.5,
  py: 0.4,
} as const;
