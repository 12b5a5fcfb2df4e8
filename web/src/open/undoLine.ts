import { perProject } from "./perProject";
import { isAway } from "./resending";
import { useSession } from "./session";
import { untilAllDone } from "./underWay";
import { useViewState } from "./visibility/viewState";

/** Something that was done to what is kept, and how it is taken back and done again; both say whether it was. */
export interface Act {
  /** What was done, as one says it. */
  name: string;
  undo: () => Promise<boolean>;
  redo: () => Promise<boolean>;
}

type Done = Act & { at: number };
type Undone = Done & { undoneAt: number };

const MOST = 200;

const useUndoLine = perProject<{ done: readonly Done[]; undone: readonly Undone[] }>(() => ({
  done: [],
  undone: [],
}));

const timeOf = (step: { at: string } | undefined) => Date.parse(step?.at ?? "") || 0;

/**
 * Note what was done just now: it is undone in its turn, with what was done to the view. Where it is told, the
 * notice's Undo is that same step back, whatever was done since.
 */
export function noteAct(act: Act, told?: string): void {
  const done = { ...act, at: Date.now() };
  useUndoLine.setState((line) => ({ done: [...line.done, done].slice(-MOST), undone: [] }));
  if (told) useSession.getState().say(told, () => void takeBack(done));
}

/** Do something to what is kept, and note it once it was done. */
export async function doAct(act: Act, told?: string): Promise<boolean> {
  if (!(await act.redo())) return false;
  noteAct(act, told);
  return true;
}

/** Whether something is as one left it: what somebody else changed since is no longer one's own to undo, which is said. */
export function isAsLeft(what: string, left: unknown, now: unknown): boolean {
  if (now === undefined || now === left) return true;
  useSession.getState().say(`Somebody changed ${what} since. It stays as it is.`);
  return false;
}

/** Take one act back: whether it was. One that was taken back already stays so. */
async function takeBack(act: Done): Promise<boolean> {
  if (!useUndoLine.getState().done.includes(act)) return true;
  const gone = await act.undo();
  // What somebody else made impossible is no step back for ever; what the server was away for is tried again.
  if (!gone && isAway()) return false;
  useUndoLine.setState(({ done, undone }) => ({
    done: done.filter((each) => each !== act),
    undone: gone ? [...undone, { ...act, undoneAt: Date.now() }] : undone,
  }));
  return gone;
}

/** What would be taken back now, by its name, which may be empty; null for nothing. */
export function useLastDone(): string | null {
  const act = useUndoLine((s) => s.done.at(-1));
  const step = useViewState(({ history }) => (history.at > 0 ? history.steps[history.at] : undefined));
  if (act && act.at >= timeOf(step)) return act.name;
  return step ? step.name : null;
}

/**
 * Take back what was done last, to the view or to what is kept: its name, null for nothing, false where it could not be.
 * What is still being done is what was done last.
 */
export async function undoLast(): Promise<string | null | false> {
  await untilAllDone();
  const { history, undo } = useViewState.getState();
  const act = useUndoLine.getState().done.at(-1);
  if (!act || act.at < timeOf(history.steps[history.at])) return undo();
  return (await takeBack(act)) && act.name;
}

/** Do again what was undone last: its name, null for nothing, false where it could not be. */
export async function redoNext(): Promise<string | null | false> {
  await untilAllDone();
  const { history, redo } = useViewState.getState();
  const act = useUndoLine.getState().undone.at(-1);
  const next = history.steps[history.at + 1];
  const stale = !act || timeOf(history.steps[history.at]) > act.undoneAt;
  if (stale || (next && timeOf(next) < act.at)) return redo();
  const again = await act.redo();
  if (!again && isAway()) return false;
  useUndoLine.setState(({ done, undone }) => ({
    done: again ? [...done, act] : done,
    undone: undone.filter((each) => each !== act),
  }));
  return again && act.name;
}
