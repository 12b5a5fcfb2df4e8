import useMediaQuery from "@mui/material/useMediaQuery";

/** Whether what is drawn is touched with fingers, so that it needs more room than for a mouse. */
export function useFinger(): boolean {
  return useMediaQuery("(pointer: coarse)", { noSsr: true });
}
