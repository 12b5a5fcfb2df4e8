import type { Cause } from "../../stage/gestures/host";
import type { ViewKind } from "../../stage/view";

const announced: Record<ViewKind, string> = { stage: "", drawing: "" };

/** Say what the next jump of a view is for, so that its Trail can tell. */
export function announce(cause: string, kind: ViewKind = "stage"): void {
  announced[kind] = cause;
}

/** What brought the eye to where it rests: what was announced, if it went there by itself. It counts for one such rest. */
export function causeOf(cause: Cause, kind: ViewKind = "stage"): string {
  if (cause !== "went") return cause;
  const told = announced[kind];
  announced[kind] = "";
  return told || "went";
}
