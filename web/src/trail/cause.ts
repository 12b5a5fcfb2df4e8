import type { Cause } from "../stage/navigationHost";
import type { ViewKind } from "../stage/view";

const announced: Record<ViewKind, string> = { stage: "", drawing: "" };

/** Say what the next jump of a view is for, so that its Trail can tell. */
export function announce(cause: string, kind: ViewKind = "stage"): void {
  announced[kind] = cause;
}

/** What brought the eye to where it rests: what was announced, if it went there by itself. */
export function causeOf(cause: Cause, kind: ViewKind = "stage"): string {
  return cause === "went" ? announced[kind] || "went" : cause;
}
