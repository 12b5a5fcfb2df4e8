// @vitest-environment happy-dom
import { renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { useConnection } from "../api/connection";
import { endProject } from "./perProject";
import { useSession } from "./session";
import { counted } from "./underWay";
import { doAct, isAsLeft, noteAct, redoNext, undoLast, useLastDone } from "./undoLine";
import { useViewState } from "./visibility/viewState";

vi.mock("../api/resolved", () => ({ fetchResolved: () => new Promise(() => {}) }));

beforeEach(() => void vi.useFakeTimers({ now: 1_000_000 }));
afterEach(() => {
  vi.useRealTimers();
  useConnection.setState({ away: false });
  endProject();
});

/** Something done to what is kept; what was called, in order. */
function acts() {
  const called: string[] = [];
  const act = (name: string, works = () => true) => {
    vi.advanceTimersByTime(10);
    const done = (what: string) => async () => works() && called.push(`${what} ${name}`) > 0;
    noteAct({ name, undo: done("undo"), redo: done("redo") });
  };
  const look = (depthM: number) => {
    vi.advanceTimersByTime(10);
    useViewState.getState().change({ depthM }, `depth ${depthM}`);
  };
  return { called, act, look };
}

test("what is kept and what is seen are undone in the order in which they were done, and done again so", async () => {
  const { called, act, look } = acts();
  look(1);
  act("status");
  look(2);
  const undone = [await undoLast(), await undoLast(), await undoLast(), await undoLast()];
  expect(undone).toEqual(["depth 2", "status", "depth 1", null]);
  vi.advanceTimersByTime(10);
  const again = [await redoNext(), await redoNext(), await redoNext(), await redoNext()];
  expect(again).toEqual(["depth 1", "status", "depth 2", null]);
  expect(called).toEqual(["undo status", "redo status"]);
});

test("after something new nothing older is done again", async () => {
  const { act, look } = acts();
  act("status");
  expect(await undoLast()).toBe("status");
  look(3);
  expect(await redoNext()).toBeNull();
  act("title");
  expect(await undoLast()).toBe("title");
  expect(await redoNext()).toBe("title");
});

test("what cannot be undone does not stand in the way; what the server is away for waits", async () => {
  const { act } = acts();
  let works = false;
  act("first");
  act("second", () => works);
  useConnection.setState({ away: true });
  expect(await undoLast()).toBe(false);
  useConnection.setState({ away: false });
  works = true;
  expect(await undoLast()).toBe("second");
  works = false;
  expect(await redoNext()).toBe(false);
  expect(await undoLast()).toBe("first");
});

test("what is undone next is known by its name, of the view or of what is kept", async () => {
  const { act, look } = acts();
  const last = () => renderHook(() => useLastDone()).result.current;
  expect(last()).toBeNull();
  look(5);
  expect(last()).toBe("depth 5");
  act("deleted Roof");
  expect(last()).toBe("deleted Roof");
  await undoLast();
  expect(last()).toBe("depth 5");
});

test("the Undo of a notice is the same step back, taken once, whatever was done since", async () => {
  const { called, act, look } = acts();
  await doAct(
    {
      name: "deleted Roof",
      undo: async () => called.push("restore") > 0,
      redo: async () => called.push("delete") > 0,
    },
    "Deleted Roof.",
  );
  const { notice } = useSession.getState();
  expect(notice?.text).toBe("Deleted Roof.");
  look(1);
  act("status");
  notice?.undo?.();
  await vi.waitFor(() => expect(called).toEqual(["delete", "restore"]));
  notice?.undo?.();
  expect([await undoLast(), await undoLast(), await undoLast()]).toEqual(["status", "depth 1", null]);
  expect(called).toEqual(["delete", "restore", "undo status"]);
});

test("what could not be done is no step, and what somebody changed since is told", async () => {
  expect(await doAct({ name: "x", undo: async () => true, redo: async () => false })).toBe(false);
  expect(await undoLast()).toBeNull();
  expect([isAsLeft("Roof", "a", "a"), isAsLeft("Roof", "a", undefined)]).toEqual([true, true]);
  expect(isAsLeft("Roof", "a", "b")).toBe(false);
  expect(useSession.getState().notice?.text).toBe("Somebody changed Roof since. It stays as it is.");
});

test("what is still being done is what is taken back, not what was done before it", async () => {
  vi.useRealTimers();
  const called: string[] = [];
  const before = async () => called.push("before") > 0;
  noteAct({ name: "changed the title", undo: before, redo: before });
  let answered = () => {};
  const answer = new Promise<boolean>((resolve) => {
    answered = () => resolve(true);
  });
  void doAct({
    name: "deleted Roof",
    undo: async () => called.push("restore") > 0,
    redo: () => counted(answer),
  });
  const undone = undoLast();
  answered();
  expect(await undone).toBe("deleted Roof");
  expect(called).toEqual(["restore"]);
});

test("who undoes does not wait for a server that is away", async () => {
  vi.useRealTimers();
  noteAct({ name: "changed the title", undo: async () => true, redo: async () => true });
  void counted(new Promise(() => {}));
  const undone = undoLast();
  useConnection.setState({ away: true });
  expect(await undone).toBe("changed the title");
});
