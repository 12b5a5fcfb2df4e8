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
  private axis(plus: readonly string[], minus: readonly string[]): number {
    const one = (codes: readonly string[]) => (codes.some((code) => this.held.has(code)) ? 1 : 0);
    return one(plus) - one(minus);
  }

  /** How much one wants to go ahead; below zero backwards. */
  get ahead(): number {
    return this.axis(["KeyW", "ArrowUp"], ["KeyS", "ArrowDown"]) + (this.thumb?.y ?? 0);
  }

  /** How much one wants to go to the right; below zero to the left. */
  get aside(): number {
    return this.axis(["KeyD"], ["KeyA"]) + (this.thumb?.x ?? 0);
  }

  /** Which way one turns: 1 to the right, -1 to the left. */
  get turn(): number {
    return this.axis(["ArrowRight"], ["ArrowLeft"]);
  }

  /** Which way one rises: 1 up, -1 down. */
  get rise(): number {
    return this.axis(["PageUp"], ["PageDown"]);
  }

  /** Whether anything is asked for. */
  get any(): boolean {
    return this.held.size > 0 || this.thumb !== null;
  }

  dispose(): void {
    window.removeEventListener("keydown", this.down, true);
    window.removeEventListener("keyup", this.up, true);
    window.removeEventListener("blur", this.clear);
  }
}
