import { expect, test } from "vitest";
import { promptOf } from "./prompt";

const idle = { mode: "orbit", tool: false, locked: false, picked: false } as const;

test("a locked view promises no move, whatever is in hand", () => {
  expect(promptOf(idle)).toBe("Drag orbits, right drag pans, wheel zooms. Click selects, ? shows the keys.");
  for (const mode of ["orbit", "walk", "fly"] as const)
    for (const tool of [false, true]) {
      const said = promptOf({ ...idle, mode, tool, locked: true });
      expect(said).toContain("until it is unlocked");
      expect(said).not.toMatch(/orbits|pans|zooms|walk|fly|Drag/);
    }
});

test("a tool in hand says its own clicks, and walking its keys", () => {
  expect(promptOf({ ...idle, tool: true, mode: "walk" })).toBe(
    "Right drag pans, wheel zooms. Esc puts the tool away.",
  );
  expect(promptOf({ ...idle, mode: "walk", picked: true })).toContain("W S walk");
  expect(promptOf({ ...idle, picked: true })).toContain("Esc clears the selection.");
});
