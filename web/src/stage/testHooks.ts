declare global {
  interface Window {
    /** What tests and benches reach from outside, by name; only in builds made for them. */
    stairpath?: Record<string, unknown>;
  }
}

/** Let tests and benches reach something by a name; in any other build this does nothing. */
export function offerToTests(name: string, thing: unknown): void {
  if (import.meta.env.MODE !== "test" || typeof window === "undefined") return;
  window.stairpath = { ...window.stairpath, [name]: thing };
}
