import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { useConnection } from "./connection";
import { useSignedOut } from "./signedOut";
import { hear } from "./stream";

/** A stream as the browser has it, told by the test what comes. */
class Heard extends EventTarget {
  static readonly CLOSED = 2;
  static made: Heard[] = [];
  readyState = 0;
  onerror: (() => void) | null = null;
  constructor(readonly address: string) {
    super();
    Heard.made.push(this);
  }
  close() {
    this.readyState = 2;
  }
  refuse() {
    this.readyState = 2;
    this.onerror?.();
  }
  say(name: string, data: object = {}) {
    this.dispatchEvent(new MessageEvent(name, { data: JSON.stringify(data) }));
  }
}

const now = (): Heard => Heard.made.at(-1) as Heard;
const told = { changed: vi.fn(), anew: vi.fn() };
let end: () => void;

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("EventSource", Heard);
  Heard.made = [];
  vi.clearAllMocks();
  end = hear("/events", told);
});
afterEach(() => {
  end();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test("what changed is told, and beginning is not, for the first time", () => {
  now().say("begun");
  now().say("changed", { kind: "topics" });
  expect(told.changed.mock.calls).toEqual([["topics"]]);
  expect(told.anew).not.toHaveBeenCalled();
  now().say("begun");
  expect(told.anew).toHaveBeenCalledTimes(1);
});

test("a sign-in that has ended is noted, and what one missed is fetched once one is in again", () => {
  const before = useSignedOut.getState().times;
  now().say("ended");
  expect(useSignedOut.getState().times).toBe(before + 1);
  expect(now().readyState).toBe(Heard.CLOSED);
  vi.advanceTimersByTime(1000);
  expect(Heard.made).toHaveLength(2);
});

test("a refused stream is asked for again, and what was missed is fetched", () => {
  now().refuse();
  expect(Heard.made).toHaveLength(1);
  vi.advanceTimersByTime(1000);
  expect(Heard.made).toHaveLength(2);
  // Refused again it waits twice as long.
  now().refuse();
  vi.advanceTimersByTime(1900);
  expect(Heard.made).toHaveLength(2);
  vi.advanceTimersByTime(100);
  expect(Heard.made).toHaveLength(3);
  now().say("begun");
  expect(told.anew).toHaveBeenCalledTimes(1);
  now().refuse();
  vi.advanceTimersByTime(1000);
  expect(Heard.made).toHaveLength(4);
});

test("when the server is back it is asked at once, and only once", () => {
  now().refuse();
  useConnection.setState((s) => ({ back: s.back + 1 }));
  expect(Heard.made).toHaveLength(2);
  expect(told.anew).toHaveBeenCalledTimes(1);
  vi.advanceTimersByTime(60_000);
  expect(Heard.made).toHaveLength(2);
});

test("who has left asks no more", () => {
  now().refuse();
  end();
  vi.advanceTimersByTime(60_000);
  useConnection.setState((s) => ({ back: s.back + 1 }));
  expect(Heard.made).toHaveLength(1);
});
