import { expect, test } from "vitest";
import type { Action } from "../open/action";
import type { Tool } from "../stage/tools/tool";
import { heldBack } from "./inHand";

const action = (group: Action["group"], key: string): Action => ({
  name: key,
  group,
  key,
  run: () => undefined,
});
const measuring: Tool = { name: "distance", prompt: "Click two points." };
const writing: Tool = { name: "mark text", prompt: "Click where the text goes.", writes: true };

test("with a tool in hand no key changes what it is used on; moving about goes on", () => {
  expect(heldBack(action("Show", "c"), null)).toBeNull();
  expect(heldBack(action("Show", "c"), measuring)).toContain("Press Esc first");
  expect(heldBack(action("Select", "x"), measuring)).toContain("Press Esc first");
  expect(heldBack(action("Look", "left"), measuring)).toBeNull();
  expect(heldBack(action("Measure", "g"), measuring)).toBeNull();
});

test("a tool that waits for words takes every key; it can be put away and its work taken back", () => {
  for (const group of ["Look", "Fit", "Window", "Beside", "Cut"] as const)
    expect(heldBack(action(group, "r"), writing)).toContain("Click where the text goes.");
  for (const key of ["escape", "ctrl+z", "ctrl+y"]) expect(heldBack(action("Show", key), writing)).toBeNull();
});
