import "@fontsource/barlow/400.css";
import "@fontsource/barlow/500.css";
import "@fontsource/barlow/600.css";
import "@fontsource/barlow-semi-condensed/500.css";
import "@fontsource/barlow-semi-condensed/600.css";
import "@fontsource/ibm-plex-mono/400.css";
import "@fontsource/ibm-plex-mono/500.css";
import { createTheme } from "@mui/material/styles";

/** The drawing office's colours and faces. */
export const tone = {
  film: "#f3f1ec",
  paper: "#faf8f4",
  line: "#d9d3c6",
  ink: "#1e2b36",
  soft: "#5d6b76",
  pick: "#e08a1e",
  pickInk: "#8f5206",
  here: "#0e7c86",
  wrong: "#a3361b",
} as const;

export const face = {
  text: "'Barlow', sans-serif",
  head: "'Barlow Semi Condensed', sans-serif",
  figure: "'IBM Plex Mono', monospace",
} as const;

export const theme = createTheme({
  palette: {
    primary: { main: tone.ink },
    secondary: { main: tone.here },
    error: { main: tone.wrong },
    background: { default: tone.film, paper: tone.paper },
    text: { primary: tone.ink, secondary: tone.soft },
    divider: tone.line,
  },
  shape: { borderRadius: 3 },
  typography: { fontFamily: face.text, fontSize: 13, button: { textTransform: "none", fontWeight: 600 } },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        "html, body, #root": { height: "100%", overflow: "hidden" },
        body: { fontVariantNumeric: "tabular-nums" },
        ":focus-visible": { outline: `2px solid ${tone.here}`, outlineOffset: 1 },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, size: "small" },
      styleOverrides: {
        root: { minWidth: 0, padding: "4px 10px", lineHeight: 1.4, fontSize: 13 },
        outlined: { borderColor: tone.ink, backgroundColor: "#fff" },
        text: {
          textDecoration: "underline",
          textUnderlineOffset: 3,
          padding: "2px 0",
          "& + &": { marginLeft: 12 },
        },
      },
    },
    MuiTooltip: {
      defaultProps: { enterDelay: 400, disableInteractive: true, describeChild: true },
      styleOverrides: { tooltip: { backgroundColor: tone.ink, fontSize: 12, fontFamily: face.text } },
    },
    MuiDialog: {
      styleOverrides: {
        paper: { border: `1px solid ${tone.ink}`, boxShadow: "6px 6px 0 rgba(30,43,54,.18)" },
      },
    },
    MuiOutlinedInput: {
      styleOverrides: { root: { backgroundColor: "#fff" }, input: { padding: "7px 10px" } },
    },
  },
});
