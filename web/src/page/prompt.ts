const MOVING = {
  walk: "W S walk, A D sidestep, ← → turn. Drag looks around, Shift is faster.",
  fly: "W A S D fly, Page Up and Down rise and sink. Shift is faster.",
} as const;

interface Hands {
  mode: "orbit" | "walk" | "fly";
  /** A tool is in hand. */
  tool: boolean;
  locked: boolean;
  /** Something is selected. */
  picked: boolean;
}

/** What the mouse and the keys do now. */
export function promptOf({ mode, tool, locked, picked }: Hands): string {
  const moves = locked ? "The view stays as it is until it is unlocked." : "";
  // What a tool's click and drag do stands with the tool itself.
  if (tool) return `${moves || "Right drag pans, wheel zooms."} Esc puts the tool away.`;
  if (!locked && mode !== "orbit") return MOVING[mode];
  const click = picked ? "Esc clears the selection." : "Click selects, ? shows the keys.";
  return `${moves || "Drag orbits, right drag pans, wheel zooms."} ${click}`;
}
