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

/** The keys that move the eye while somebody walks or flies; no one else hears of them meanwhile. */
export class HeldKeys {
  private readonly held = new Set<string>();
  fast = false;

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
    this.fast = event.shiftKey;
    if (!MOVES.has(event.code) || this.not.has(event.code) || typing(event.target)) return;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    this.held.add(event.code);
    this.wake();
  };

  private readonly up = (event: KeyboardEvent): void => {
    this.fast = event.shiftKey;
    this.held.delete(event.code);
  };

  private readonly clear = (): void => {
    this.held.clear();
    this.fast = false;
  };

  /** One key against another: 1, -1 or 0. */
  axis(plus: readonly string[], minus: readonly string[]): number {
    const one = (codes: readonly string[]) => (codes.some((code) => this.held.has(code)) ? 1 : 0);
    return one(plus) - one(minus);
  }

  get any(): boolean {
    return this.held.size > 0;
  }

  dispose(): void {
    window.removeEventListener("keydown", this.down, true);
    window.removeEventListener("keyup", this.up, true);
    window.removeEventListener("blur", this.clear);
  }
}
