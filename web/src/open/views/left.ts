import { del, get, set } from "idb-keyval";
import type { View } from "../../api/client";
import { type OlderView, today } from "../document";
import type { History } from "../visibility/history";
import type { Look } from "../visibility/viewState";

/** Views that this browser keeps for a person in a project: where they left it, and their own home. */
type Kept = "left" | "home";

function keyOf(kind: Kept | "changes" | "leaving", projectId: string, person: string): string {
  return `${kind}/${projectId}/${person}`;
}

export async function keptView(kind: Kept, projectId: string, person: string): Promise<View | undefined> {
  const kept = await get<View | OlderView>(keyOf(kind, projectId, person));
  return kept && today(kept);
}

export function keepView(kind: Kept, projectId: string, person: string, view: View | null): Promise<void> {
  const key = keyOf(kind, projectId, person);
  return view ? set(key, view) : del(key);
}

/** What was changed of what is seen, so that it can be undone after a reload too. */
export function keptChanges(projectId: string, person: string): Promise<History<Look> | undefined> {
  return get<History<Look>>(keyOf("changes", projectId, person));
}

export function keepChanges(projectId: string, person: string, changes: History<Look>): Promise<void> {
  return set(keyOf("changes", projectId, person), changes);
}

/** What is left in a moment that waits for nothing: the view, what the address said then, and what was changed. */
interface Leaving {
  view: View;
  hash: string;
  changes?: History<Look>;
}

/** More than this is not kept in such a moment; what was kept of the changes before counts then. */
const MOST_CHARACTERS = 1 << 20;

/** Keep a view while the page is being left. */
export function keepLeaving(projectId: string, person: string, leaving: Leaving): void {
  const whole = JSON.stringify(leaving);
  const { changes: _, ...short } = leaving;
  localStorage.setItem(
    keyOf("leaving", projectId, person),
    whole.length <= MOST_CHARACTERS ? whole : JSON.stringify(short),
  );
}

/** What the page was left with, if the address is still that of then; it is given once. */
export function takeLeaving(
  projectId: string,
  person: string,
  hash: string,
): Pick<Leaving, "view" | "changes"> | null {
  const key = keyOf("leaving", projectId, person);
  const kept = localStorage.getItem(key);
  localStorage.removeItem(key);
  const leaving = kept === null ? null : (JSON.parse(kept) as Leaving);
  return leaving?.hash === hash ? { ...leaving, view: today(leaving.view) } : null;
}
