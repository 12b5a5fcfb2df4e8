import { AWAY } from "../api/client";
import { onBack, useConnection } from "../api/connection";
import { atProjectEnd } from "./perProject";
import { useSession } from "./session";

const waiting = new Map<string, () => unknown>();

/** Whether what was just tried failed because the server is away. */
export function isAway(): boolean {
  return useConnection.getState().away;
}

/** Do something as soon as the server can be reached again; of one thing the last that was asked for. Nobody has to do it again. */
export function whenBack(what: string, act: () => unknown): void {
  waiting.set(what, act);
  if (useSession.getState().notice?.text === AWAY) useSession.getState().hush();
}

/** It is done, or given up. */
export function notWhenBack(what: string): void {
  waiting.delete(what);
}

onBack(() => {
  const due = [...waiting.values()];
  waiting.clear();
  for (const act of due) act();
});
atProjectEnd(() => waiting.clear());
