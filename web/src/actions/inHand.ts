import type { Action } from "../open/action";
import type { Tool } from "../stage/tools/tool";

/** What changes the components that the tool in hand is used on. */
const CHANGING: ReadonlySet<Action["group"]> = new Set(["Show", "Select"]);
/** Putting the tool away and taking back are always possible. */
const ALWAYS: ReadonlySet<string | undefined> = new Set(["escape", "ctrl+z", "ctrl+y"]);

/** Why the key of an action is not its own while a tool is in hand, in a sentence; null where it is. */
export function heldBack(action: Action, tool: Tool | null): string | null {
  if (!tool || ALWAYS.has(action.key)) return null;
  if (tool.writes) return `${tool.prompt} Keys act again after that.`;
  return CHANGING.has(action.group) ? `“${action.name}” waits for the tool in hand. Press Esc first.` : null;
}
