import "@fontsource/ibm-plex-mono/400.css";
import "@fontsource/source-sans-3/400.css";
import "@fontsource/source-sans-3/600.css";
import { createTheme } from "@mui/material/styles";
import { ENLARGED } from "./lettering";
import { tone } from "./tone";

export { tone };

/** In a window of this width board and desk are slimmer, so that the stage keeps half of it. */
export const SLIM = "@media (max-width: 1119px)";

/** Words on one line that end in dots where there is no more room. */
export const CUT_OFF = { overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" } as const;

/** The strip below the stage. */
export const STRIP = "#e8e4da";

/** Where a finger is used, which needs more room than a mouse. */
export const FINGER = "@media (pointer: coarse)";
export const FINGER_PX = 32;

// Its letters keep their dots in bold at 12 to 15 pixels of a plain screen.
const TEXT = "'Source Sans 3', sans-serif";

export const face = {
  text: TEXT,
  head: TEXT,
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
        "canvas.stage": { outline: "none" },
        "canvas.stage:focus-visible": { outline: `2px solid ${tone.here}`, outlineOffset: -2 },
        [FINGER]: {
          "button, select, [role='tab'], [role='combobox'], a[href]": {
            minHeight: FINGER_PX,
            minWidth: FINGER_PX,
          },
          "label, input": { minHeight: FINGER_PX },
        },
        ":focus-visible": { outline: `2px solid ${tone.here}`, outlineOffset: 1 },
      },
    },
    MuiAutocomplete: {
      styleOverrides: {
        paper: {
          border: `1px solid ${tone.ink}`,
          borderRadius: 0,
          boxShadow: "3px 3px 0 rgba(30,43,54,.15)",
        },
        option: { fontSize: 13, [FINGER]: { minHeight: FINGER_PX } },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, size: "small" },
      styleOverrides: {
        root: {
          minWidth: 0,
          padding: "4px 10px",
          lineHeight: 1.4,
          fontSize: 13,
          [FINGER]: { minWidth: FINGER_PX, minHeight: FINGER_PX },
        },
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
    MuiPopover: { styleOverrides: { paper: { "& > *": ENLARGED } } },
    MuiDialog: {
      styleOverrides: {
        paper: {
          ...ENLARGED,
          border: `1px solid ${tone.ink}`,
          boxShadow: "6px 6px 0 rgba(30,43,54,.18)",
        },
      },
    },
    MuiOutlinedInput: {
      styleOverrides: { root: { backgroundColor: "#fff" }, input: { padding: "7px 10px" } },
    },
  },
});
