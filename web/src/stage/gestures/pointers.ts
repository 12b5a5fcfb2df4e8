import { Vector2 } from "three";
import type { Press, WheelTurn } from "../gesture";

/** What takes presses and turns of the wheel. */
interface Taker {
  down(press: Press): void;
  move(press: Press): void;
  up(press: Press, broken: boolean): void;
  twice(at: Vector2, adds: boolean): void;
  leave(): void;
  wheel(turn: WheelTurn): void;
}

const LINE_PX = 33;
const PAGE_PX = 400;

/** Hand on what mouse, wheel and fingers do on an element, of which a view has so much from its top left. */
export function listen(
  element: HTMLElement,
  size: () => { width: number; height: number },
  taker: Taker,
): void {
  const at = (event: MouseEvent) => {
    const { left, top } = element.getBoundingClientRect();
    const { width, height } = size();
    return new Vector2(((event.clientX - left) / width) * 2 - 1, 1 - ((event.clientY - top) / height) * 2);
  };
  const adds = (event: MouseEvent) => event.shiftKey || event.ctrlKey || event.metaKey;
  const press = (event: PointerEvent): Press => ({
    at: at(event),
    pointer: event.pointerId,
    kind: event.pointerType === "touch" ? "touch" : event.pointerType === "pen" ? "pen" : "mouse",
    button: event.button,
    shift: event.shiftKey,
    adds: adds(event),
    through: event.altKey,
  });
  element.addEventListener("pointerdown", (event) => {
    // What stands over the view and is dragged itself.
    if (event.target instanceof Element && event.target.closest("[data-own-drag]")) return;
    // Only a pointer of the system can be captured; the cross that keys move is none.
    if (event.isTrusted) element.setPointerCapture(event.pointerId);
    taker.down(press(event));
  });
  element.addEventListener("pointermove", (event) => taker.move(press(event)));
  element.addEventListener("pointerup", (event) => taker.up(press(event), false));
  element.addEventListener("pointercancel", (event) => taker.up(press(event), true));
  // The system says how soon a second click makes it a double one; who needs longer has set it so.
  element.addEventListener("dblclick", (event) => taker.twice(at(event), adds(event)));
  element.addEventListener("pointerleave", () => taker.leave());
  element.addEventListener(
    "wheel",
    (event) => {
      event.preventDefault();
      const unit = event.deltaMode === 1 ? LINE_PX : event.deltaMode === 2 ? PAGE_PX : 1;
      // With Shift held, browsers turn the wheel's way across.
      const turned = event.shiftKey && event.deltaY === 0;
      taker.wheel({
        at: at(event),
        acrossPx: turned ? 0 : event.deltaX * unit,
        alongPx: (turned ? event.deltaX : event.deltaY) * unit,
        pace: event.ctrlKey ? "fast" : event.shiftKey ? "fine" : "plain",
        through: event.altKey,
        pinched: event.ctrlKey,
      });
    },
    { passive: false },
  );
  element.addEventListener("contextmenu", (event) => event.preventDefault());
}
