import type { Cause } from "../stage/navigation";

let announced = "";

/** Say what the next jump is for, so that the Trail can tell. */
export function announce(cause: string): void {
  announced = cause;
}

/** What brought the eye to where it rests: what was announced, if it went there by itself. */
export function causeOf(cause: Cause): string {
  return cause === "went" ? announced || "went" : cause;
}
