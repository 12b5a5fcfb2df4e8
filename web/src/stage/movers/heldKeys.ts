const MOVES = new Set([
  "KeyW",
  "KeyA",
  "KeyS",
  "KeyD",
  "ArrowUp",
  "ArrowDown",
  "ArrowLeft",
  "ArrowRight",
  "PageUp",
  "PageDown",
]);

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof Element &&
    target.closest(
      "input, textarea, select, [contenteditable], [role=dialog], [role=listbox], .MuiModal-root",
    ) !== null
  );
}

/** Question for over some seconds: going ahead, aside, turning right and rising, each -1 to 1. */
export interface Asked {
  seconds: number;
  ahead: number;
  aside: number;
  turn: number;
  rise: number;
  fast: boolean;
}

/** A key that went down or came up, and whether one is to be fast from then on. */
interface Change {
  atMs: number;
  down: string | null;
  up: string | null;
  fast: boolean;
}

/**
 * The keys that move the eye while somebody walks or flies; no one else hears of them.
 * A press counts for as long as it was held, however few frames saw it.
 */
export class HeldKeys {
  /** What is held as far as time has been taken. */
  private readonly held = new Set<string>();
  private fast = false;
  /** What is down by the last event; a key that was pressed elsewhere counts from its first repeat here. */
  private readonly pressed = new Set<string>();
  /** What changed since, in the order it happened. */
  private readonly changes: Change[] = [];
  /** How far a thumb pushes ahead (y) and aside (x), -1 to 1; null while it does not. */
  thumb: { x: number; y: number } | null = null;

  constructor(
    private readonly wake: () => void,
    /** Keys that others keep, such as those for storeys while walking. */
    private readonly not: ReadonlySet<string> = new Set(),
  ) {
    window.addEventListener("keydown", this.down, true);
    window.addEventListener("keyup", this.up, true);
    window.addEventListener("blur", this.clear);
  }

  private readonly down = (event: KeyboardEvent): void => {
    if (!this.moves(event)) {
      // Shift on its own counts from then on.
      if (this.any) this.change(event, null, null);
      return;
    }
    event.preventDefault();
    event.stopImmediatePropagation();
    if (this.pressed.has(event.code)) return;
    this.pressed.add(event.code);
    this.change(event, event.code, null);
  };

  private readonly up = (event: KeyboardEvent): void => {
    this.pressed.delete(event.code);
    if (this.any) this.change(event, null, event.code);
  };

  private readonly clear = (): void => {
    this.held.clear();
    this.pressed.clear();
    this.changes.length = 0;
    this.fast = false;
  };

  private moves(event: KeyboardEvent): boolean {
    if (!MOVES.has(event.code) || this.not.has(event.code) || typing(event.target)) return false;
    return !(event.ctrlKey || event.metaKey || event.altKey);
  }

  private change(event: KeyboardEvent, down: string | null, up: string | null): void {
    this.changes.push({ atMs: event.timeStamp, down, up, fast: event.shiftKey });
    this.wake();
  }

  private take({ down, up, fast }: Change): void {
    if (up) this.held.delete(up);
    if (down) this.held.add(down);
    this.fast = fast;
  }

  /** One key against another: 1, -1 or 0. */
  private axis(plus: readonly string[], minus: readonly string[]): number {
    const one = (codes: readonly string[]) => (codes.some((code) => this.held.has(code)) ? 1 : 0);
    return one(plus) - one(minus);
  }

  private askedFor(seconds: number): Asked {
    return {
      seconds,
      ahead: this.axis(["KeyW", "ArrowUp"], ["KeyS", "ArrowDown"]) + (this.thumb?.y ?? 0),
      aside: this.axis(["KeyD"], ["KeyA"]) + (this.thumb?.x ?? 0),
      turn: this.axis(["ArrowRight"], ["ArrowLeft"]),
      rise: this.axis(["PageUp"], ["PageDown"]),
      fast: this.fast,
    };
  }

  /** When the first change happened that no frame has taken yet, in the page's milliseconds; or null. */
  get changedAt(): number | null {
    return this.changes[0]?.atMs ?? null;
  }

  /** What was asked for from one time of the page to a later one, in pieces during which nothing changed. */
  asked(fromMs: number, toMs: number): Asked[] {
    const out: Asked[] = [];
    let atMs = fromMs;
    const until = (ms: number) => {
      if (ms > atMs) out.push(this.askedFor((ms - atMs) / 1000));
      atMs = Math.max(atMs, ms);
    };
    for (let next = this.changes[0]; next && next.atMs <= toMs; next = this.changes[0]) {
      until(next.atMs);
      this.take(next);
      this.changes.shift();
    }
    until(toMs);
    return out;
  }

  /** Whether anything is asked for. */
  get any(): boolean {
    return this.held.size > 0 || this.changes.length > 0 || this.thumb !== null;
  }

  dispose(): void {
    window.removeEventListener("keydown", this.down, true);
    window.removeEventListener("keyup", this.up, true);
    window.removeEventListener("blur", this.clear);
  }
}
