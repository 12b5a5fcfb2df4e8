/** After so long without a change a view is drawn in full. */
const STILL_MS = 150;

/** When a view is drawn in full: at rest where frames are quick, always at rest, or only as a picture that is kept. */
export type InFull = "quick" | "always" | "pictures";

/** Says whether a view has stayed as it is for long enough to be drawn in full, and asks for that frame. */
export class Finishing {
  when: InFull = "quick";
  private seen = "";
  private since = 0;
  private timer = 0;

  constructor(private readonly ask: () => void) {}

  /** Whether what is seen, by a name for it, is to be drawn in full now; frames may take long. */
  due(seen: string, slow: boolean): boolean {
    if (this.when === "pictures" || (slow && this.when === "quick")) {
      this.dispose();
      this.seen = "";
      return false;
    }
    const now = performance.now();
    if (seen !== this.seen) {
      this.seen = seen;
      this.since = now;
      this.dispose();
      this.timer = window.setTimeout(this.ask, STILL_MS);
    }
    return now - this.since >= STILL_MS;
  }

  dispose(): void {
    window.clearTimeout(this.timer);
  }
}
