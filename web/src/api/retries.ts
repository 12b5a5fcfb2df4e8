import { onBack } from "./connection";

const FIRST_MS = 1000;
const LONGEST_MS = 15_000;

/** When a lost connection is tried again: soon, then later and later, and at once when the server is back. */
export class Retries {
  private pauseMs = FIRST_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly offBack: () => void;

  /** `again` connects; `back` is told that the server is back, whether or not this connection was lost. */
  constructor(
    private readonly again: () => void,
    back: () => void = () => undefined,
  ) {
    this.offBack = onBack(() => {
      back();
      if (this.timer !== undefined) this.now();
    });
  }

  /** The connection was lost. */
  later(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.now(), this.pauseMs);
    this.pauseMs = Math.min(2 * this.pauseMs, LONGEST_MS);
  }

  /** The connection is there: the next time it is lost it is tried again soon. */
  connected(): void {
    this.pauseMs = FIRST_MS;
  }

  private now(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.again();
  }

  /** Try no more. */
  end(): void {
    this.offBack();
    clearTimeout(this.timer);
    this.timer = undefined;
  }
}
