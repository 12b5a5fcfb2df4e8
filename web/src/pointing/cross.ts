/** What a key does to the cross. */
export type Stroke =
  | { kind: "move"; x: number; y: number }
  | { kind: "click"; adds: boolean; twice: boolean }
  | { kind: "hold"; button: 0 | 2 }
  | { kind: "wheel"; notches: number }
  | { kind: "end" };

const STEP_PX = 12;
const FAR_PX = 60;
const FINE_PX = 1;
const NOTCH_PX = 100;

type Pressed = Pick<KeyboardEvent, "key" | "shiftKey" | "ctrlKey" | "metaKey" | "altKey">;

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What a key means while somebody points with the keys; null for one that means something else. */
export function strokeOf(event: Pressed): Stroke | null {
  const adds = event.ctrlKey || event.metaKey;
  const way = WAYS[event.key];
  if (way) {
    const step = event.shiftKey ? FAR_PX : event.altKey ? FINE_PX : STEP_PX;
    return { kind: "move", x: way[0] * step, y: way[1] * step };
  }
  if (event.key === "Enter") return { kind: "click", adds, twice: event.shiftKey };
  if (event.key === " ") return { kind: "hold", button: event.shiftKey ? 2 : 0 };
  if (event.key === "+" || event.key === "=") return { kind: "wheel", notches: -1 };
  if (event.key === "-") return { kind: "wheel", notches: 1 };
  if (event.key === "Escape") return { kind: "end" };
  return null;
}

/** A point kept on the stage. */
export function within(
  at: { x: number; y: number },
  size: { width: number; height: number },
): { x: number; y: number } {
  const kept = (value: number, most: number) => Math.min(Math.max(value, 1), most - 1);
  return { x: kept(at.x, size.width), y: kept(at.y, size.height) };
}

interface Held {
  button: 0 | 2;
  adds: boolean;
}

/** The mouse that the cross is for an element: what it does reaches whoever listens to a mouse there. */
export class CrossMouse {
  constructor(private readonly element: HTMLElement) {}

  move(at: { x: number; y: number }, held: 0 | 2 | null): void {
    this.send("pointermove", at, held === null ? null : { button: held, adds: false });
  }

  down(at: { x: number; y: number }, held: Held): void {
    this.send("pointerdown", at, held);
  }

  up(at: { x: number; y: number }, held: Held): void {
    this.send("pointerup", at, held);
  }

  /** Let go of what is dragged without doing it. */
  drop(at: { x: number; y: number }): void {
    this.send("pointercancel", at, null);
  }

  click(at: { x: number; y: number }, adds: boolean, twice: boolean): void {
    for (let k = 0; k < (twice ? 2 : 1); k++) {
      this.down(at, { button: 0, adds });
      this.up(at, { button: 0, adds });
    }
    if (twice) this.element.dispatchEvent(new MouseEvent("dblclick", this.placed(at)));
  }

  wheel(at: { x: number; y: number }, notches: number): void {
    const turned = { ...this.placed(at), deltaY: notches * NOTCH_PX, deltaMode: WheelEvent.DOM_DELTA_PIXEL };
    this.element.dispatchEvent(new WheelEvent("wheel", turned));
  }

  private placed(at: { x: number; y: number }): MouseEventInit {
    const { left, top } = this.element.getBoundingClientRect();
    return { clientX: left + at.x, clientY: top + at.y, bubbles: true, cancelable: true };
  }

  private send(kind: string, at: { x: number; y: number }, held: Held | null): void {
    this.element.dispatchEvent(
      new PointerEvent(kind, {
        ...this.placed(at),
        pointerId: 1,
        pointerType: "mouse",
        isPrimary: true,
        button: kind === "pointermove" ? -1 : (held?.button ?? 0),
        buttons: held && kind !== "pointerup" ? (held.button === 2 ? 2 : 1) : 0,
        ctrlKey: held?.adds ?? false,
      }),
    );
  }
}
