// @vitest-environment happy-dom
import { expect, it } from "vitest";
import { CrossMouse, strokeOf, within } from "./cross";

const pressed = (key: string, more: Partial<KeyboardEvent> = {}) => ({
  key,
  shiftKey: false,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  ...more,
});

it("moves by steps that are far with Shift and fine with Alt", () => {
  expect(strokeOf(pressed("ArrowRight"))).toEqual({ kind: "move", x: 12, y: 0 });
  expect(strokeOf(pressed("ArrowUp", { shiftKey: true }))).toEqual({ kind: "move", x: 0, y: -60 });
  expect(strokeOf(pressed("ArrowLeft", { altKey: true }))).toEqual({ kind: "move", x: -1, y: 0 });
});

it("clicks, adds, goes there, holds and ends; other keys stay what they are", () => {
  expect(strokeOf(pressed("Enter"))).toEqual({ kind: "click", adds: false, twice: false });
  expect(strokeOf(pressed("Enter", { ctrlKey: true }))).toEqual({ kind: "click", adds: true, twice: false });
  expect(strokeOf(pressed("Enter", { shiftKey: true }))).toEqual({ kind: "click", adds: false, twice: true });
  expect(strokeOf(pressed(" ", { shiftKey: true }))).toEqual({ kind: "hold", button: 2 });
  expect(strokeOf(pressed("-"))).toEqual({ kind: "wheel", notches: 1 });
  expect(strokeOf(pressed("Escape"))).toEqual({ kind: "end" });
  expect(strokeOf(pressed("c"))).toBeNull();
});

it("stays on the stage", () => {
  expect(within({ x: -40, y: 900 }, { width: 800, height: 600 })).toEqual({ x: 1, y: 599 });
});

it("is a mouse to who listens: a drag is a press, moves with the button down, and a release", () => {
  const element = document.createElement("div");
  const heard: string[] = [];
  for (const kind of ["pointerdown", "pointermove", "pointerup", "dblclick"])
    element.addEventListener(kind, (event) => {
      const { type, button, buttons, clientX } = event as PointerEvent;
      heard.push(`${type} ${button} ${buttons} ${clientX}`);
    });
  const mouse = new CrossMouse(element);
  mouse.down({ x: 10, y: 5 }, { button: 2, adds: false });
  mouse.move({ x: 20, y: 5 }, 2);
  mouse.up({ x: 20, y: 5 }, { button: 2, adds: false });
  expect(heard).toEqual(["pointerdown 2 2 10", "pointermove -1 2 20", "pointerup 2 0 20"]);
  mouse.click({ x: 3, y: 3 }, false, true);
  expect(heard.slice(3).map((each) => each.split(" ")[0])).toEqual([
    "pointerdown",
    "pointerup",
    "pointerdown",
    "pointerup",
    "dblclick",
  ]);
});
