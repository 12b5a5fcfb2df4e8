import type { Shapes } from "../api/client";
import { ROLES } from "../api/constants";

/** A role by its name in a list. */
export function roleOf(text: string): Shapes["Mine"]["role"] {
  return ROLES.find(({ role }) => role === text)?.role ?? "look";
}
