import type { Cause } from "../../stage/gestures/host";
import type { ViewKind } from "../../stage/view";

const announced: Record<ViewKind, string> = { stage: "", drawing: "", second: "" };

/** Say what the next jump of a view is for, so that its Trail can tell. */
export function announce(cause: string, kind: ViewKind = "stage"): void {
  announced[kind] = cause;
}

const FOLLOWING = "following ";

/** The cause while somebody is followed. */
export const following = (name: string): string => `${FOLLOWING}${name}`;

/** The cause on a way that is walked by itself, or by its handle. */
export const ALONG_A_ROUTE = "walk the route";
const BIT_BY_BIT = new Set<string>(["zoomed", "walked", "flew", ALONG_A_ROUTE]);

/** Whether such a move goes on where the one before it left off, so that both are one approach. */
export function goesOn(cause: string): boolean {
  return BIT_BY_BIT.has(cause) || cause.startsWith(FOLLOWING);
}

/** What brought the eye to where it rests: what was announced, if it went there by itself. It counts for one such rest. */
export function causeOf(cause: Cause, kind: ViewKind = "stage"): string {
  if (cause !== "went") return cause;
  const told = announced[kind];
  announced[kind] = "";
  return told || "went";
}
