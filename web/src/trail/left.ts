import { del, get, set } from "idb-keyval";
import type { View } from "../api/client";

/** Views that this browser keeps for a person in a project: where they left it, and their own home. */
type Kept = "left" | "home";

function keyOf(kind: Kept, projectId: string, person: string): string {
  return `${kind}/${projectId}/${person}`;
}

export function keptView(kind: Kept, projectId: string, person: string): Promise<View | undefined> {
  return get<View>(keyOf(kind, projectId, person));
}

export function keepView(kind: Kept, projectId: string, person: string, view: View | null): Promise<void> {
  const key = keyOf(kind, projectId, person);
  return view ? set(key, view) : del(key);
}
